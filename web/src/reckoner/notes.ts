/** Stages of the work under which the sums are listed. */
export const groups = [
  { title: 'Intake and diagnose', names: ['which-joint', 'kingpin-fit', 'shop-plan'] },
  { title: 'Ready', names: ['job-cost', 'grease-fill', 'torque-setting'] },
  {
    title: 'Seal and brake',
    names: ['seal-seat', 'seal-speed', 'spindle-fit', 'lining-wear', 'wear-limit', 'pushrod-stroke'],
  },
  {
    title: 'Adjust and verify',
    names: ['nut-setting', 'end-play', 'nut-travel', 'shim-choice', 'rolling-torque'],
  },
  { title: 'Wheel on', names: ['tightening-sequence', 'clamp-load'] },
  { title: 'Intervals and wear', names: ['due', 'wear-trend', 'replacement-age'] },
  { title: 'Bearings', names: ['bearing-life', 'bearing-pair', 'setting-life', 'load-distribution'] },
  {
    title: 'Findings',
    names: [
      ...['survival', 'weibull-fit', 'log-rank', 'competing-risks', 'pooled-slopes'],
      ...['gauge-study', 'control-chart'],
    ],
  },
  { title: 'Units', names: ['convert'] },
] as const;

interface SumNote {
  /** The rule in words. */
  formula: string;
  notCovered: string;
}

/** What each sum does, in words, and what it leaves out. */
export const notes: Record<string, SumNote> = {
  'which-joint': {
    formula:
      'A joint is suspect when its movement is over its limit. The bearing’s share is its part of all movement.',
    notCovered:
      'Tyre and rim movement, a loose steering arm, or an indicator whose base and tip stand on one solid part.',
  },
  'kingpin-fit': {
    formula:
      'Clearance is the mean of a bush less the mean of the pin. Rock at the indicator is both clearances over the span of the bushes, times the radius of the tip.',
    notCovered:
      'A bush that is not in line with its fellow, a bent pin, and a worn thrust bearing. Some kits come to size and are never reamed: the maker decides.',
  },
  'rolling-torque': {
    formula: 'The steady pull times the radius of the cord, less what the seal drags by itself.',
    notCovered:
      'The first pull that breaks it away, a brake that drags, and bearings that have not been turned home. New and run-in bearings have figures of their own.',
  },
  'shim-choice': {
    formula:
      'The setting follows the stack one to one. The stack wanted brings it to the middle of the target; every stack that the shims make is held against it.',
    notCovered:
      'Housings and spacers that give under load, dirt between shims, and end play read as zero, which hides any preload. The rolling torque proves it.',
  },
  'spindle-fit': {
    formula:
      'Every diameter against the journal’s own limits. Taper is the range of the places’ means, out of round the greatest range at one place.',
    notCovered: 'A step, galling, colour, a bent spindle, and a micrometer that was not warmed and zeroed.',
  },
  'wear-limit': {
    formula:
      'The greatest diameter of a drum, or the least thickness of a rotor, against the figure cast into it.',
    notCovered:
      'Cracks, hard spots, grooves and a part with no figure: those are judged by eye and by the maker.',
  },
  'pushrod-stroke': {
    formula:
      'Applied less released, at 90 to 100 psi (620 to 690 kPa), engine off, against the limit of the chamber. A chamber that is not listed may use 80 % of its marked stroke.',
    notCovered:
      'Why an automatic adjuster is out: turning it answers nothing, find the cause. Local rules decide what may be driven.',
  },
  'shop-plan': {
    formula:
      'Every job takes one bay and one person from start to end. The plan seeks the least sum of weight times minutes late.',
    notCovered: 'Shifts, breaks, parts that are not there yet, and two people on one job.',
  },
  'job-cost': {
    formula:
      'Hours times rate, quantity times price, supplies as a part of labour, tax on the sums it falls on. Each sum is rounded once, half up.',
    notCovered: 'Discounts, exchange of old parts, and taxes that stand on one another.',
  },
  'grease-fill': {
    formula:
      'Free room of a bearing is π/4 · (D² − d²) · T less its steel at 7.8 g/ml; the cavity takes its share.',
    notCovered: 'Grease already in the hub, and makers who name a quantity: theirs comes first.',
  },
  'torque-setting': {
    formula:
      'Set T · L / (L + E · cos θ), then divide by ratio times efficiency of the multiplier. Use the upper 80 % of the tool’s range.',
    notCovered: 'Pulling anywhere but at the grip mark, and a wrench out of calibration.',
  },
  'seal-seat': {
    formula:
      'A lip stands at depth plus its offset. It keeps its margin from both ends of the journal and both edges of the groove.',
    notCovered: 'Finish and runout of the journal, and a hub face that is not square.',
  },
  'seal-speed': {
    formula: 'Turns a minute from road speed and rolling circumference; times the journal’s girth.',
    notCovered: 'Tyre wear, and the limit of the seal’s material.',
  },
  'lining-wear': {
    formula: 'The straight line of least squares through the readings, carried on to the minimum.',
    notCovered: 'Uneven wear across the lining, a dragging brake, and a route that changes.',
  },
  'nut-setting': {
    formula:
      'Predicted end play is measured less turns times pitch times follow ratio. Best is the lock position in band nearest the middle.',
    notCovered:
      'Thread clearance that the jam nut takes up, bearings that are not seated, and wear. Always measure again.',
  },
  'end-play': {
    formula:
      'A cycle is pull less push, times the cosine of the tip’s inclination. End play is the mean; the cycles must repeat.',
    notCovered: 'A bent spindle, brake drag, and a base that moves with the hub.',
  },
  'nut-travel': { formula: 'Turns times pitch.', notCovered: 'Thread clearance and a washer that gives.' },
  'tightening-sequence': {
    formula:
      'Even wheels: each stud is followed by its opposite, and no pair starts beside the stud just done. Odd wheels: a constant skip. Then all again.',
    notCovered: 'Wheels with centring nuts: those come first. The sheet’s torque holds.',
  },
  'clamp-load': {
    formula:
      'Torque is load times (pitch / 2π + thread friction on its radius + head friction on its radius).',
    notCovered: 'Paint, rust or oil that changes friction, and studs past their yield.',
  },
  due: {
    formula:
      'Each limit is carried on to a date: months by the calendar, distance and hours at the unit’s median rate of use. The first counts.',
    notCovered: 'Seasons, and work in water or dust that shortens the interval.',
  },
  'wear-trend': {
    formula: 'Slope is the median of the slopes between all pairs, intercept the median of what is left.',
    notCovered: 'A step after a repair: take only the readings since the last setting.',
  },
  'replacement-age': {
    formula:
      'The age at which planned cost on survivors plus failure cost on failures, over the mean time run, is least.',
    notCovered: 'Parts that fail without wear, and the danger to people: that is not a cost to weigh.',
  },
  'bearing-life': {
    formula:
      'Life is (C / P) to the power of the exponent, in millions of turns, times reliability and life factor.',
    notCovered: 'Dirt, water, a wrong setting and shock: what ends most hub bearings.',
  },
  'bearing-pair': {
    formula: 'Each row induces 0.5 · Fr / Y along the axis; the external load goes to the row it presses.',
    notCovered: 'Preload, cornering and bending of the spindle.',
  },
  'setting-life': {
    formula:
      'For each setting the balance of all rollers of both rows is solved; life goes by the rollers’ loads, against that at zero end play.',
    notCovered: 'Heat, misalignment and bending. A model for understanding, never a reason to change a band.',
  },
  'load-distribution': {
    formula: 'The integrals of the roller loads over the loaded zone, along the load and all together.',
    notCovered: 'Flexible rings and clearance between rollers and cage.',
  },
  'weibull-fit': {
    formula:
      'Shape and scale that make the failures and the survivors seen most likely. A failure found between two visits counts as between them, a part known only from an age on counts from there.',
    notCovered: 'Two causes of failure mixed in one list: part them first.',
  },
  survival: {
    formula:
      'At each failure, the share of those still at risk that goes on, multiplied up. Failures found between two visits are shared out over the time between them.',
    notCovered: 'Units taken out because they were about to fail.',
  },
  'log-rank': {
    formula:
      'At each failure, every group is expected to fail by its share of the parts still running. What it failed more or less, against how far chance reaches.',
    notCovered:
      'What else was different between the groups, such as units, routes and hands. Compare within strata, and ask before blaming a part.',
  },
  'competing-risks': {
    formula: 'At each failure, the share still running times the part of it that this cause ended, added up.',
    notCovered: 'What one cause would do if another were taken away.',
  },
  'pooled-slopes': {
    formula:
      'The mean of the kind, weighted by doubt. Each slope is drawn toward it by its own variance over all its variance.',
    notCovered: 'Wheel ends of different kinds: pool each kind by itself.',
  },
  'gauge-study': {
    formula: 'Analysis of variance of parts, people and trials; interaction is pooled when it may be chance.',
    notCovered: 'Whether the gauge is true: that is its calibration.',
  },
  'control-chart': {
    formula: 'Centre plus and minus 2.66 mean moving ranges.',
    notCovered: 'Trends inside the limits.',
  },
  convert: {
    formula: 'Value times the factor of its unit over the factor of the other.',
    notCovered: 'Units of another kind.',
  },
};

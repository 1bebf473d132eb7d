import { quantity } from '@lanternwright/core/quantity';
import { isCalibrated, whyNotTool, type Tool, type ToolKind } from '@lanternwright/core/tool';
import type { Random } from './random.ts';
import { demoTools } from './scenario.ts';

/** The tools of the demo shop as their calibration stood on any day. */
export class ToolCrib {
  private readonly ids: readonly string[];

  constructor(random: Random) {
    this.ids = demoTools.map(() => random.uuid());
  }

  /** Every tool on a day; what has lapsed has so only today. */
  on(day: string, lapsed: 'lapsed' | 'all-good' = 'all-good'): Tool[] {
    return demoTools.map(({ tool, endsOn, lapsed: late }, i) => {
      const year = Number(day.slice(0, 4));
      const next = `${day.slice(5) <= endsOn ? year : year + 1}-${endsOn}`;
      const past = `${Number(next.slice(0, 4)) - 1}-${endsOn}`;
      const until = late && lapsed === 'lapsed' ? past : next;
      return { ...tool, id: this.ids[i]!, calibratedUntil: isCalibrated(tool.kind) ? until : null };
    });
  }

  /** The first tool that is able to do it on that day. */
  find(kind: ToolKind, day: string, settingNm = quantity(100, 'Nm').si): Tool {
    const tool = this.on(day).find((t) => whyNotTool(t, { kind, today: day, settingNm }) === null);
    if (!tool) throw new Error(`demo: no ${kind} for ${settingNm.toFixed(0)} N·m`);
    return tool;
  }
}

import { symptoms, type Symptom } from '../inspection/index.ts';

const titles: Record<string, string> = {
  rock: 'The wheel moved when it was rocked, and nothing since shows why or that it is put right',
  oil: 'Water or metal in the oil, and the bearings were not judged after it',
  'oil-burnt': 'The oil was burnt, and the bearings were not judged after it',
  'oil-leak': 'Oil is missing, and where it went is not mended',
  'other-side-hot': 'The other side was hot after the road',
};

/** A finding that nothing has answered, in words. @param note what a person wrote with it */
export function describeFinding(id: string, note: string): string {
  if (id.startsWith('symptom:')) {
    const symptom = id.slice('symptom:'.length) as Symptom;
    return `Reported before the job, and not answered: ${symptoms[symptom]}`;
  }
  if (id === 'left-out-of-service') return `The job before ended out of service: ${note}`;
  return `${titles[id] ?? id}${note ? ` (${note})` : ''}`;
}

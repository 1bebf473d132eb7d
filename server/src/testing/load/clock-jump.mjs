/** Loaded before a server: at each SIGUSR2 its clock jumps by hours, forward or back. */
const HOURS = [0, 1, -3, 6, 0.5, -1];
const Plain = Date;
let jumps = 0;
const now = () => Plain.now() + (HOURS[jumps % HOURS.length] ?? 0) * 3_600_000;

globalThis.Date = new Proxy(Plain, {
  construct: (target, given, as) => Reflect.construct(target, given.length === 0 ? [now()] : given, as),
  get: (target, name, as) => (name === 'now' ? now : Reflect.get(target, name, as)),
});
process.on('SIGUSR2', () => (jumps += 1));

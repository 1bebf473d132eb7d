import { usualStack, type BuiltAxle, type Stack } from '../index.ts';

const built = (
  name: string,
  sheetId: string,
  procedureId: string,
  role: BuiltAxle['role'],
  brake: BuiltAxle['brake'],
  wheels: BuiltAxle['wheels'] = 'single',
): { name: string; sheetId: string; stack: Stack } => ({
  name,
  sheetId,
  stack: usualStack(procedureId, { role, brake, wheels })!,
});

/** A stack of every kind, with the family sheet that holds its figures. */
export const everyStack = [
  built('heavy drive', 'a-drive-tang', 'a-two-nuts', 'drive', 'drum', 'dual'),
  built('heavy drive, lock ring', 'b-drive', 'b-lock-ring', 'drive', 'drum', 'dual'),
  built('heavy trailer', 'a-trailer', 'a-two-nuts', 'trailer', 'drum', 'dual'),
  built('heavy pre-set', 'c-preset', 'c-preset', 'trailer', 'disc', 'dual'),
  built('heavy steer', 'd-steer-18', 'd-steer-single-nut', 'steer', 'drum'),
  built('towed caravan', 'd-towed', 'd-towed', 'trailer', 'drum'),
  built('flatbed', 'd-towed', 'd-towed', 'fixed', 'drum'),
  built('implement, no brake', 'd-towed', 'd-towed', 'fixed', 'none'),
  built('farm front', 'd-farm-front', 'd-farm-front', 'pivot', 'none'),
  built('bus front', 'e-torque', 'e-torque', 'steer', 'disc'),
  built('older van front', 'e-keyed-washer', 'e-keyed-washer', 'steer', 'disc'),
  built('light-truck front', 'f-unitised', 'f-unitised', 'steer', 'disc'),
  built('trailer compact hub', 'f-compact', 'f-compact', 'trailer', 'disc'),
  built('caravan rubber axle', 'f-drum', 'f-drum', 'trailer', 'drum'),
  built('light-truck rear', 'g-c-clip', 'g-c-clip', 'drive', 'drum'),
  built('4×4 front', 'h-lock-nuts', 'h-lock-nuts', 'steer', 'disc'),
  built('crawler', 'j-shaft-seal', 'j-shaft-seal', 'drive', 'none'),
  built('planetary front', 'n-planetary', 'n-planetary', 'steer', 'none'),
  built('dumper hub, shims', 'n-shims', 'n-shims', 'fixed', 'none'),
  built('old drum and hub', 'm-swaged-studs', 'm-swaged-studs', 'steer', 'drum'),
];

/** The 4×4 front whose knuckle seal is split: it comes out without the caps. */
export const splitSealed = {
  ...everyStack.find((b) => b.name === '4×4 front')!,
  name: '4×4 front, split seal',
};
splitSealed.stack = splitSealed.stack.map((l) => (l.layer === 'knuckle' ? { ...l, splitSeal: true } : l));

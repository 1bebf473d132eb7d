export { actorSchema, recordedBy, sentOn, type Actor } from './actor.ts';
export { isWeakPin } from './weak-pin.ts';
export { capabilities, may, pinIsEnough, type Capability } from './capability.ts';
export { notOfOneOwner, programCapabilities, type ProgramCapability } from './program.ts';
export { roles, type Role } from './role.ts';
export { roleSchema } from './role-schema.ts';

export { capabilities, may, pinIsEnough, type Capability } from './capability.ts';
export { roles, roleSchema, type Role } from './role.ts';

import { z } from 'zod';
import { roles, type Role } from './role.ts';

export const roleSchema = z.enum(Object.keys(roles) as [Role, ...Role[]]);

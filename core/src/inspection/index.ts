export { whichJoint, whichJointCalculation } from './which-joint.ts';

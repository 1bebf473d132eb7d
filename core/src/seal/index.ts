export { sealSeat, sealSeatCalculation } from './seal-seat.ts';
export { sealSpeed, sealSpeedCalculation } from './seal-speed.ts';

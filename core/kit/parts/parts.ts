/** Every kind of part there is. */
import type { Part } from '../kit.ts';
import { lamp } from './lamp.ts';
import { motor } from './motor.ts';
import type { PartDef } from './part.ts';
import { colour, distance, line } from './sensors.ts';
import { servo, spin } from './servo.ts';

export const PARTS: Readonly<Record<Part['type'], PartDef>> = { motor, servo, spin, line, distance, colour, lamp };
export const PART_TYPES = Object.keys(PARTS) as Part['type'][];

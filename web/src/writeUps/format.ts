import type { FigureFormat } from '@yellow-thread/core/report';
import { asCount, asPercent } from '../lib/numbers.js';

/** Figures of a write-up are written as everywhere else. */
export const figureFormat: FigureFormat = { count: asCount, percent: asPercent };

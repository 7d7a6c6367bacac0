import pino from 'pino';

/** Structured logs, one JSON object a line. LOG_LEVEL is one of pino's levels; `info` when not set. */
export const log = pino({ level: process.env.LOG_LEVEL ?? 'info', base: null });

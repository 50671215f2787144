import { Type } from '@sinclair/typebox';
import { idSchema } from '../base';
import { TRIES_A_PAGE } from './pages';
import { AttemptSchema } from './state';

/** A page of one phrase's tries. */
export const TriesPageSchema = Type.Object({
  phrase: idSchema(80),
  n: Type.Integer({ minimum: 0, maximum: 1e6 }),
  // A try that was removed and comes back may make a page longer.
  tries: Type.Array(AttemptSchema, { minItems: 1, maxItems: 2 * TRIES_A_PAGE }),
});

import { z } from 'zod';
import { problems, type ProblemCode } from '../problems/index';

/** Body of every error (RFC 9457), with the stable `code` of `core/problems`. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  code: z.enum(Object.keys(problems) as [ProblemCode, ...ProblemCode[]]),
  advice: z.string(),
});
export type ProblemBody = z.infer<typeof problemSchema>;

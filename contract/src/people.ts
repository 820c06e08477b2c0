import { z } from 'zod';
import { idSchema, nameSchema } from './ids.js';

export const signInSchema = z.object({
  name: nameSchema,
  password: z.string().min(1).max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const choosePasswordSchema = z.object({ password: z.string().min(10).max(200) });

export const accountSchema = z.object({
  id: idSchema,
  name: z.string(),
  /** True until the one-time password has been replaced by one of the person's own. */
  choosesPassword: z.boolean(),
});
export type Account = z.infer<typeof accountSchema>;

/** Who is signed in, and what a request that changes something must carry. */
export const sessionSchema = z
  .object({
    account: accountSchema.nullable(),
    csrfToken: z.string(),
    /** True where the demo study may be entered without a password. */
    demoOffered: z.boolean(),
  })
  .meta({ id: 'Session' });
export type Session = z.infer<typeof sessionSchema>;

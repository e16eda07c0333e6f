import { z } from 'zod';
import { readCertificate, type Certificate } from './certificate';

const environmentSchema = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  HOST: z.string().default('127.0.0.1'),
  STYLET_DATABASE_URL: z.url(),
  /** Where spooled copies of files live; may be emptied at any time. */
  STYLET_CACHE: z.string().min(1),
  /** The built web client; nothing is served when it is absent. */
  STYLET_WEB: z.string().optional(),
  /** The fonts that typed text is set in, see scripts/gather-fonts.mjs. */
  STYLET_FONTS: z.string().min(1),
  STYLET_MAX_FILE_MB: z.coerce.number().positive().default(2048),
  STYLET_MAX_PICTURE_MB: z.coerce.number().positive().default(64),
  /** Room on the disk that uploads leave for the database and all else. */
  STYLET_MIN_FREE_MB: z.coerce.number().nonnegative().default(512),
  /** Names under which the server is reached, besides those of this machine itself; with commas between them. */
  STYLET_HOSTS: z.string().default(''),
  /** The folder of a certificate, by which the server answers over https as well; see `./stylet certificate`. */
  STYLET_TLS: z.string().optional(),
  STYLET_TLS_PORT: z.coerce.number().int().min(0).max(65535).default(4643),
  STYLET_TLS_HOST: z.string().default('0.0.0.0'),
});

export interface Config {
  readonly port: number;
  readonly host: string;
  readonly databaseUrl: string;
  readonly cacheFolder: string;
  readonly webFolder: string | undefined;
  readonly fontsFolder: string;
  readonly maxFileBytes: number;
  readonly maxPictureBytes: number;
  readonly minFreeBytes: number;
  readonly hosts: readonly string[];
  readonly secure: (Certificate & { readonly port: number; readonly host: string }) | undefined;
}

/** The configuration from environment variables. Throws with the names of those that are wrong. */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const parsed = environmentSchema.safeParse(environment);
  if (!parsed.success)
    throw new Error(`The environment is not right:\n${z.prettifyError(parsed.error)}`);
  const e = parsed.data;
  const certificate = e.STYLET_TLS === undefined ? undefined : readCertificate(e.STYLET_TLS);
  return {
    port: e.PORT,
    host: e.HOST,
    databaseUrl: e.STYLET_DATABASE_URL,
    cacheFolder: e.STYLET_CACHE,
    webFolder: e.STYLET_WEB,
    fontsFolder: e.STYLET_FONTS,
    maxFileBytes: e.STYLET_MAX_FILE_MB * 1024 * 1024,
    maxPictureBytes: e.STYLET_MAX_PICTURE_MB * 1024 * 1024,
    minFreeBytes: e.STYLET_MIN_FREE_MB * 1024 * 1024,
    hosts: e.STYLET_HOSTS.split(',')
      .map((host) => host.trim().toLowerCase())
      .filter(Boolean)
      .concat(certificate?.hosts ?? []),
    secure: certificate && { ...certificate, port: e.STYLET_TLS_PORT, host: e.STYLET_TLS_HOST },
  };
}

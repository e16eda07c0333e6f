import { speechSchema, speechWantedSchema, voiceListSchema } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Services } from '../services';
import { awaitedBy } from '../work/awaited';

/** Voices for browsers that have none. */
export const speechRoutes =
  ({ speaker }: Pick<Services, 'speaker'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/voices',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'Voices that read aloud', response: { 200: voiceListSchema } },
      },
      async () => ({ voices: await speaker.voices() }),
    );

    app.post(
      '/api/speech',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Have a sentence spoken',
          body: speechWantedSchema,
          response: { 200: speechSchema },
        },
      },
      async (request, reply) => {
        const spoken = await speaker.speak(request.body, awaitedBy(reply));
        if (!spoken)
          throw new Problem('voice-not-found', `There is no voice “${request.body.voice}”.`);
        return { audio: Buffer.from(spoken.wav).toString('base64'), marks: [...spoken.marks] };
      },
    );
  };

import multipart from '@fastify/multipart';
import swagger from '@fastify/swagger';
import fastify, {
  type FastifyBaseLogger,
  type FastifyInstance,
  type FastifyReply,
  type FastifyRequest,
} from 'fastify';
import {
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
} from 'fastify-type-provider-zod';
import { companionRoutes } from './companions/routes';
import { dictionaryRoutes } from './dictionary/routes';
import { documentRoutes } from './documents/routes';
import { exportRoutes } from './export/routes';
import { findRoutes } from './find/routes';
import { typedRoutes } from './typed/routes';
import { trashRoutes } from './trash/routes';
import { folderRoutes } from './folders/routes';
import { healthRoutes } from './health/routes';
import { keywordRoutes } from './keywords/routes';
import { liveRoutes } from './live/routes';
import { textRoutes } from './indexing/routes';
import { kitRoutes } from './kit/routes';
import { miniatureRoutes } from './miniatures/routes';
import { pictureRoutes } from './pictures/routes';
import { Problem } from '@stylet/core/problems';
import { answerWithProblems } from './problem-replies';
import { readingRoutes } from './reading/routes';
import { attachmentRoutes } from './attachments/routes';
import { guardRoutes } from './access/guard';
import { everyoneIsLocal, type Identify } from './access/identity';
import { guardDoor } from './door/door';
import { refuseUnstorableText } from './door/text';
import type { Services } from './services';
import { serveClient } from './client';
import { workingFor } from './work/log';
import { stampRoutes } from './stamps/routes';
import { speechRoutes } from './speech/routes';
import { addressRoutes, certificateRoutes } from './secure';
import { sourceRoutes } from './sources/routes';

/** Two hundred long strokes in one batch: what takes the thread that answers a part of a second to read. */
const LARGEST_BODY = 16 * 1024 * 1024;

/** The HTTP application, ready to listen. */
export async function buildApp(
  services: Services,
  loggerInstance: FastifyBaseLogger | undefined,
  identify: Identify = everyoneIsLocal,
): Promise<FastifyInstance> {
  const app = fastify({
    ...(loggerInstance ? { loggerInstance } : {}),
    bodyLimit: LARGEST_BODY,
    forceCloseConnections: true,
  });
  // Asynchronous context is lost while a body is read, so that the request is set a second time after it.
  const forRequest = (request: FastifyRequest, _reply: FastifyReply, done: () => void): void =>
    workingFor({ request: request.id }, done);
  app.addHook('onRequest', forRequest);
  app.addHook('preValidation', forRequest);
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  answerWithProblems(app);
  await guardDoor(app, services.config);
  app.addHook('onRequest', (_request, _reply, done) => {
    const { isReady } = services.readiness;
    done(isReady ? undefined : new Problem('database-unavailable', 'It is not ready yet.'));
  });
  guardRoutes(app, services.database, identify);
  refuseUnstorableText(app);
  services.viewers.watch(app);
  await app.register(multipart, {
    limits: { fileSize: services.config.maxFileBytes, files: 1 },
    throwFileSizeLimit: false,
  });
  await app.register(swagger, {
    openapi: { openapi: '3.1.0', info: { title: 'Stylet', version: '1' } },
    transform: jsonSchemaTransform,
  });
  await app.register(addressRoutes(services.config));
  if (services.config.secure) await app.register(certificateRoutes(services.config.secure));
  await app.register(healthRoutes(services));
  await app.register(documentRoutes(services));
  await app.register(liveRoutes(services, LARGEST_BODY));
  await app.register(typedRoutes(services));
  await app.register(trashRoutes(services));
  await app.register(folderRoutes(services));
  await app.register(sourceRoutes(services));
  await app.register(miniatureRoutes(services));
  await app.register(companionRoutes(services));
  await app.register(exportRoutes(services));
  await app.register(attachmentRoutes(services));
  await app.register(kitRoutes(services));
  await app.register(pictureRoutes(services));
  await app.register(stampRoutes(services));
  await app.register(readingRoutes(services));
  await app.register(keywordRoutes(services));
  await app.register(textRoutes(services));
  await app.register(findRoutes(services));
  await app.register(dictionaryRoutes(services));
  await app.register(speechRoutes(services));
  app.get('/api/openapi.json', { config: { needs: 'nothing' }, schema: { hide: true } }, () =>
    app.swagger(),
  );
  if (services.config.webFolder) await serveClient(app, services.config.webFolder);
  return app;
}

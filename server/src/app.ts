/** Putting the application together: the same for the command line and for tests. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';

import { NestFactory } from '@nestjs/core';
import { ExpressAdapter, type NestExpressApplication } from '@nestjs/platform-express';
import { SwaggerModule } from '@nestjs/swagger';
import type { Movement } from '@waxwing/core/movement';
import { loadChecked } from '@waxwing/library';
import express, { type NextFunction, type Request, type Response } from 'express';

import { AppModule } from './app.module.js';
import { HoldsService } from './backups/holds.service.js';
import type { Config } from './config.js';
import { prepareFolder } from './database/prepare.js';
import { isFull, type StudioFolder } from './database/studio-folder.js';
import { describeApi } from './description.js';
import { visitorIn } from './door/allowed.js';
import { DoorService } from './door/door.service.js';
import { doorFirst } from './door/door-first.js';
import { LibraryService } from './movements/library.service.js';
import { jsonBodies } from './problems/json-body.js';
import { nothingHere, problemAnswer, ProblemFilter } from './problems/problem.filter.js';
import { ProblemException } from './problems/problem.js';
import { validation } from './problems/validation.js';
import { notTooOften, notTooSlowly, security } from './security.js';

const BODY_LIMIT = '2mb';
/** A whole library, or all of a client's years, as one file. */
const PACK_LIMIT_MB = 40;
/** A little over what a picture may have, so that its own message can say so. */
const PICTURE_LIMIT_MB = 6;

/**
 * Builds the application on a data folder, with the built web application when its folder is given.
 * @param acceptLoss go on with a database that is not what it was
 * @throws StartError when the folder cannot be used, LibraryError for wrong movement files
 */
export async function createApp(
  config: Config,
  webFolder?: string,
  acceptLoss = false,
): Promise<NestExpressApplication> {
  const starter = loadChecked(config.libraryFolder, config.libraryChecked);
  const folder = await prepareFolder(config.dataFolder, acceptLoss, config.keys);
  try {
    return await buildApp(config, folder, starter, webFolder);
  } catch (error) {
    folder.release();
    throw isFull(error) ? folder.full() : error;
  }
}

async function buildApp(
  config: Config,
  folder: StudioFolder,
  starter: readonly Movement[],
  webFolder: string | undefined,
): Promise<NestExpressApplication> {
  // One address, one route: what the walls look for by its path is not to be had under another.
  // No answer is kept by a browser, but what says so itself: a fingerprint of each would only be work.
  const plain = express().set('case sensitive routing', true).set('etag', false);
  const app = await NestFactory.create<NestExpressApplication>(
    AppModule.on(config, folder),
    new ExpressAdapter(plain),
    {
      logger: false,
      bodyParser: false,
      abortOnError: false,
    },
  );
  app.get(HoldsService).apply();
  app.disable('x-powered-by');
  app.use(
    security(config),
    notTooOften(config),
    notTooSlowly,
    doorFirst(() => app.get(DoorService)),
  );
  // The page, and the same as JSON and YAML.
  app.use(/^\/api\/docs[^/]*/, signedIn);
  app.use(/^\/api\/(imports|clients\/file)$/, wholeFile(PACK_LIMIT_MB));
  app.use(/^\/api\/movements\/[^/]+\/pictures$/, wholeFile(PICTURE_LIMIT_MB));
  app.use(...jsonBodies(BODY_LIMIT));
  app.setGlobalPrefix('api');
  app.useGlobalPipes(validation());
  app.useGlobalFilters(new ProblemFilter());
  SwaggerModule.setup('api/docs', app, () => describeApi(app));
  if (webFolder && existsSync(join(webFolder, 'index.html'))) serveWeb(app, webFolder);
  await app.init();
  // What no route takes, and what went wrong before one was reached, is a problem like any other.
  app.use(nothingHere, problemAnswer);
  app.get(LibraryService).addMissing(starter);
  app.enableShutdownHooks(['SIGINT', 'SIGTERM']);
  return app;
}

/** What is not behind a route's guard is for whoever is in. */
const signedIn = (request: Request, _: Response, next: NextFunction): void => {
  visitorIn(request);
  next();
};

const MB = 1024 * 1024;

/** Takes a body as the bytes that it is, and says of one that is too large by how much. */
const wholeFile = (limitMb: number) => [
  (request: Request, _: Response, next: NextFunction) => {
    const size = Number(request.headers['content-length'] ?? 0);
    if (size <= limitMb * MB) next();
    else
      next(
        new ProblemException(413, `This file has ${Math.round(size / MB)} MB; at most ${limitMb} MB can be taken.`, [
          { path: 'file', message: `must be at most ${limitMb} MB` },
        ]),
      );
  },
  express.raw({ type: () => true, limit: limitMb * MB }),
];

/** The built page: hashed assets for ever, and the page itself for every address that is not the API's (deep links). */
function serveWeb(app: NestExpressApplication, folder: string): void {
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(folder, { index: false }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) next();
    else response.setHeader('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}

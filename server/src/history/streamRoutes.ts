import type { ServerResponse } from 'node:http';
import type { StudyEvent } from '@yellow-thread/contract';
import { requireAccount, studiesOfSession } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import type { StudyEvents } from './events.js';
import { route } from '../route.js';
import { api } from '@yellow-thread/contract';

const HEARTBEAT_MS = 20_000;
/** A browser has one for all its tabs. */
const MOST_STREAMS_EACH = 20;

/** A stream of what happens to the studies of whoever asks. */
export function streamRoutes(app: App, events: StudyEvents): void {
  const open = new Map<number, Set<ServerResponse>>();
  // they would keep the server from stopping
  app.addHook('preClose', (done) => {
    for (const streams of open.values()) for (const stream of streams) stream.end();
    done();
  });
  route(app, api.followStudies, async (request, reply) => {
    const { em, session } = request;
    const { id } = requireAccount(request);
    const own = open.get(id) ?? new Set();
    if (own.size >= MOST_STREAMS_EACH) throw problems.tooManyStreams();
    const { raw } = reply;
    if (raw.closed) {
      // left before it was answered: nothing would tell again that it is closed
      return reply.hijack();
    }
    own.add(raw);
    open.set(id, own);
    const ends: (() => void)[] = [];
    raw.on('close', () => {
      for (const end of ends) end();
      own.delete(raw);
      if (own.size === 0) open.delete(id);
    });
    reply.hijack();
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      // ended, it would keep a server that stops waiting for more requests
      connection: 'close',
      'x-accel-buffering': 'no',
    });

    let studies = new Set<number>();
    /** Whoever was signed out hears nothing more, whoever was removed from a study nothing of that. */
    const lookAgain = () =>
      studiesOfSession(em, session.sessionId).then(
        (now) => {
          if (now) studies = now;
          else raw.end();
        },
        () => raw.end(),
      );
    const write = (event: StudyEvent) => {
      // ended, but not closed yet
      if (!raw.writableEnded) raw.write(`data: ${JSON.stringify(event)}\n\n`);
    };
    const stopListening = await events.listen((event) => {
      const isOfAccess = event.tables.some(
        (table) => table === 'membership' || table === 'session',
      );
      if (isOfAccess)
        void lookAgain().then(() => {
          if (studies.has(event.study)) write(event);
        });
      else if (event.study === 0 || studies.has(event.study)) write(event);
    });
    ends.push(stopListening);
    if (raw.closed) {
      stopListening();
      return reply;
    }
    await lookAgain();
    if (raw.writableEnded || raw.closed) return reply;
    raw.write(': here\n\n');
    const beat = setInterval(() => {
      void lookAgain().then(() => raw.writableEnded || raw.write(': still here\n\n'));
    }, HEARTBEAT_MS);
    ends.push(() => clearInterval(beat));
    return reply;
  });
}

import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { makerOf } from '../people/index.js';
import { DONE, route } from '../route.js';
import { addNote, editNote, readNotes, removeNote } from './notes.js';

export function noteRoutes(app: App): void {
  route(app, api.listNotes, ({ em, params }) => readNotes(em, params.study));
  route(app, api.addNote, async (request) => {
    await addNote(request.em, makerOf(request, request.params.study), request.body);
    return DONE;
  });
  route(app, api.editNote, async (request) => {
    const { em, params, body } = request;
    await editNote(em, makerOf(request, params.study), params.note, body);
    return DONE;
  });
  route(app, api.removeNote, async (request) => {
    const { em, params } = request;
    await removeNote(em, makerOf(request, params.study), params.note);
    return DONE;
  });
}

import { TestEnvironment } from 'jest-environment-jsdom';

/** A browser's window with what jsdom leaves out and every browser has. */
export default class JsdomEnvironment extends TestEnvironment {
  constructor(...args) {
    super(...args);
    Object.assign(this.global, { TextEncoder, TextDecoder, Request, Response, Headers, fetch });
  }
}

import type { BodyOf, Endpoint, MadeReply, ParamsOf, QueryOf } from '@yellow-thread/contract';
import type { FastifyReply, FastifyRequest, RouteShorthandOptions } from 'fastify';
import type { App } from './app.types.js';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** What the contract says of the operation. */
    endpoint?: Endpoint;
  }
}

/** A request as its endpoint declares it. */
export type EndpointRequest<One extends Endpoint> = FastifyRequest<{
  Params: ParamsOf<One>;
  Querystring: QueryOf<One>;
  Body: BodyOf<One>;
}>;

type EndpointHandler<One extends Endpoint> = (
  request: EndpointRequest<One>,
  reply: FastifyReply,
) => MadeReply<One> | FastifyReply | Promise<MadeReply<One> | FastifyReply>;

type EndpointOptions = Pick<
  RouteShorthandOptions,
  'bodyLimit' | 'config' | 'onRequest' | 'serializerCompiler'
>;

/** The reply of an operation that has nothing to return but that it is done. */
export const DONE = { done: true as const };

/** Files are sent as they are, not as replies in JSON. */
const asItIs = () => (data: unknown) => data as string;

/** Serves an operation of the contract: what comes in is checked against it, and what goes out. */
export function route<One extends Endpoint>(
  app: App,
  endpoint: One,
  handler: EndpointHandler<One>,
  options: EndpointOptions = {},
): void {
  const { id, method, path, params, query, body, reply, produces, consumes, problems } = endpoint;
  app.route({
    ...(produces && { serializerCompiler: asItIs }),
    ...options,
    config: { ...options.config, endpoint },
    method,
    url: path,
    schema: {
      operationId: id,
      ...(problems.length > 0 && { description: `Problems of its own: ${problems.join(', ')}.` }),
      ...(params && { params }),
      ...(query && { querystring: query }),
      ...(body && { body }),
      ...(produces && { produces: [...produces] }),
      ...(consumes && { consumes: [...consumes] }),
      response: { 200: reply },
    },
    // the schemas above are those that its type is made of
    handler: handler as (request: FastifyRequest, reply: FastifyReply) => unknown,
  });
}

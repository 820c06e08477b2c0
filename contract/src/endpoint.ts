import type { z } from 'zod';
import type { Access } from './people/roles.js';
import type { ProblemCode } from './problem.js';

/** One operation of the API: server and page derive from it what they take and give. */
export interface EndpointDeclaration {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** With parameters as `:name`. */
  path: `/api/${string}`;
  /** Whose role lets them ask for it in a study: left out, owners and researchers. */
  access?: Access;
  params?: z.ZodType;
  query?: z.ZodType;
  /** Of JSON; nothing where a form with a file is sent. */
  body?: z.ZodType;
  reply: z.ZodType;
  /** Media types of a reply that is not JSON, or of a body that is not. */
  produces?: readonly string[];
  consumes?: readonly string[];
  /** Codes of the problems that it may reply with, besides those that any operation may. */
  problems: readonly ProblemCode[];
}

export interface Endpoint extends EndpointDeclaration {
  /** The name of the operation. */
  id: string;
}

type Named<Declarations> = { [Id in keyof Declarations]: Declarations[Id] & { id: Id } };

/** Gives each operation its name. */
export function defineEndpoints<const Declarations extends Record<string, EndpointDeclaration>>(
  declarations: Declarations,
): Named<Declarations> {
  return Object.fromEntries(
    Object.entries(declarations).map(([id, one]) => [id, { ...one, id }]),
  ) as Named<Declarations>;
}

type Part<
  One extends EndpointDeclaration,
  Name extends 'params' | 'query' | 'body',
> = One[Name] extends z.ZodType ? One[Name] : z.ZodUndefined;

/** What an operation is given, as it was checked. */
export type ParamsOf<One extends EndpointDeclaration> = z.output<Part<One, 'params'>>;
export type QueryOf<One extends EndpointDeclaration> = z.output<Part<One, 'query'>>;
export type BodyOf<One extends EndpointDeclaration> = z.output<Part<One, 'body'>>;
/** The same as it is sent. */
export type SentParams<One extends EndpointDeclaration> = z.input<Part<One, 'params'>>;
export type SentBody<One extends EndpointDeclaration> = z.input<Part<One, 'body'>>;
/** What it replies, as it is made and as it was checked. */
export type MadeReply<One extends EndpointDeclaration> = z.input<One['reply']>;
export type ReplyOf<One extends EndpointDeclaration> = z.output<One['reply']>;

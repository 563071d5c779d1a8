import { ID_PATTERN } from './limits';

/** A socket as documents write it: `moduleId.socketName`. Written and taken apart here alone. */
export const socketAt = (id: string, name: string): string => `${id}.${name}`;

/** The two parts of a socket; empty where they are missing. */
export function partsOf(socket: string): { readonly id: string; readonly name: string } {
  const dot = socket.indexOf('.');
  return dot < 0 ? { id: socket, name: '' } : { id: socket.slice(0, dot), name: socket.slice(dot + 1) };
}

/** The module's id. */
export const idOf = (socket: string): string => partsOf(socket).id;

/** The socket's own name on its module. */
export const nameOf = (socket: string): string => partsOf(socket).name;

/** Whether a text is written as a socket is: both parts, and no third. */
export function isSocket(text: string): boolean {
  const { id, name } = partsOf(text);
  return id !== '' && name !== '' && !name.includes('.');
}

/** How a socket is written, as a regular expression. */
export const SOCKET_PATTERN = `${ID_PATTERN.slice(0, -1)}\\.[A-Za-z0-9]+$`;

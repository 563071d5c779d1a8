import { expose } from 'comlink';

/** A worker of tests on a channel of its own, in this thread. */
export class PortWorker {
  ended = false;
  private readonly near: MessagePort;
  private readonly errors = new EventTarget();

  /** @param api what it answers. */
  constructor(api: object) {
    const { port1, port2 } = new MessageChannel();
    this.near = port1;
    expose(api, port2);
  }

  postMessage(message: unknown, moved: Transferable[] = []): void {
    this.near.postMessage(message, moved);
  }
  addEventListener(type: string, listener: never): void {
    (type === 'error' ? this.errors : this.near).addEventListener(type, listener);
    this.near.start();
  }
  removeEventListener(type: string, listener: never): void {
    (type === 'error' ? this.errors : this.near).removeEventListener(type, listener);
  }
  terminate(): void {
    this.ended = true;
    this.near.close();
  }
  die(): void {
    this.errors.dispatchEvent(new Event('error'));
  }
}

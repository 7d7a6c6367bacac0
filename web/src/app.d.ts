declare global {
  interface Window {
    /** Keys pressed since a build began to be opened; nobody collects them while there is none. */
    earlyKeys?: KeyboardEvent[] | undefined;
  }
  namespace App {
    interface Error {
      message: string;
    }
  }
}

export {};

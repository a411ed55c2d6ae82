import type { ProblemKind } from '$lib/server/problems';
import type { Store } from '$lib/server/store';

declare global {
  namespace App {
    interface Locals {
      problem?: ProblemKind;
      store: Store;
    }
    interface Error {
      message: string;
    }
  }
}

export {};

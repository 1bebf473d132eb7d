import type { z } from 'zod';
import {
  coreCreditSchema,
  supplierStandSchema,
  type CoreCredit,
  type SentCore,
  type SentOrder,
  type SupplierStand,
} from '@lanternwright/contract/supplier';

/** A supplier that takes orders by itself, whoever speaks behind it. What is sent twice is one order, or one return. */
export interface Supplier {
  /** As it stands on the orders. */
  name: string;
  /** @throws SupplierTrouble */
  order(sent: SentOrder): Promise<SupplierStand>;
  /** How an order stands, by their number for it. @throws SupplierTrouble */
  stand(reference: string): Promise<SupplierStand>;
  /** @throws SupplierTrouble */
  returnCore(sent: SentCore): Promise<CoreCredit>;
}

/** Why a supplier's answer could not be had or taken, in words for a storekeeper. */
export class SupplierTrouble extends Error {}

const PATIENCE_MS = 10_000;

export interface SupplierSettings {
  url: string;
  name: string;
  /** What it and the shop know each other by; null where nobody asks. */
  secret: string | null;
}

/** A supplier whose service speaks JSON over HTTP, as `docs/operating.md` describes. */
export function httpSupplier({ url, name, secret }: SupplierSettings): Supplier {
  const base = url.endsWith('/') ? url : `${url}/`;

  async function ask<T>(path: string, answer: z.ZodType<T>, body?: object): Promise<T> {
    const response = await fetch(new URL(path, base), {
      method: body ? 'POST' : 'GET',
      headers: {
        ...(body ? { 'content-type': 'application/json' } : {}),
        ...(secret === null ? {} : { authorization: `Bearer ${secret}` }),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
    }).catch((error: unknown) => {
      throw new SupplierTrouble(
        error instanceof Error && error.name === 'TimeoutError'
          ? `It did not answer within ${PATIENCE_MS / 1000} seconds`
          : 'Nobody answers there',
      );
    });
    if (!response.ok) throw new SupplierTrouble(`It answers with ${response.status}`);
    const read = answer.safeParse(await response.json().catch(() => null));
    if (!read.success) throw new SupplierTrouble('Its answer is none that an order is told by');
    return read.data;
  }

  return {
    name,
    order: (sent) => ask('orders', supplierStandSchema, sent),
    stand: (reference) => ask(`orders/${encodeURIComponent(reference)}`, supplierStandSchema),
    returnCore: (sent) => ask('cores', coreCreditSchema, sent),
  };
}

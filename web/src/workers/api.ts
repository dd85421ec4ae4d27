import type { Brief, Finding, FigureAddress, Joint, LineReport, Mover, ShopEdits, Variant } from '@gristmill/core';

/** What a worker computes. Inputs and outputs are plain data; progress comes through a callback. */
export interface CoreApi {
  line(brief: Brief, variant: Variant, shop: ShopEdits): Promise<{ report: LineReport; ms: number }>;
  findings(joint: Joint, shop: ShopEdits): Promise<Finding[]>;
  movers(joint: Joint, variant: Variant, shop: ShopEdits, at: FigureAddress, onProgress: (share: number) => void): Promise<Mover[]>;
}

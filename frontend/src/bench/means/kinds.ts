import type { ReactNode } from 'react';
import type { Job, MeansView, Setting } from '../../api/client';

export type MeansKind = MeansView['kind'];

/** The view of one kind of means. */
export type ViewOf<K extends MeansKind> = Extract<MeansView, { kind: K }>;

/** What a try of a means is typed with, and what came of it. */
export interface TryPart {
  /** Over the checks, and beside them. */
  above?: ReactNode;
  beside?: ReactNode;
  /** By how much it was moved, as typed; empty where no number says so. */
  moved: string;
  /** Which of its two ways. */
  way: string;
  stacks_um: number[][];
  /** It is not as it was at the try before. */
  isChanged: boolean;
}

export interface MeansProps<K extends MeansKind> {
  job: Job;
  setting: Setting;
  view: ViewOf<K>;
}

/** Everything the bench shows of one kind of means. */
export interface MeansParts<K extends MeansKind> {
  Picture: (props: MeansProps<K>) => ReactNode;
  /** Under the picture. */
  Notes?: (props: MeansProps<K>) => ReactNode;
  /** What has to be done before the first try; `isDue` says whether it is. */
  First?: (props: MeansProps<K>) => ReactNode;
  isDue?: (job: Job, view: ViewOf<K>) => boolean;
  useTry: (setting: Setting, view: ViewOf<K>, job: Job) => TryPart;
  /** No leaf reaches the gap: it is checked by an indicator first. */
  byIndicator?: true;
}

/** A means a try only checks: nothing is typed of how it was set. */
export const NOTHING_TYPED: TryPart = { moved: '', way: '', stacks_um: [], isChanged: false };

import { Build } from '../build/Build';
import { Close } from '../close/Close';
import { Decide } from '../decide/Decide';
import { Prove } from '../prove/Prove';
import { SetGap } from '../set/SetGap';

/** The screens of the stages after Inspect: fetched once a job is on screen, so that its first one is there sooner. */
export const LATER = { decide: Decide, build: Build, set: SetGap, prove: Prove, close: Close };

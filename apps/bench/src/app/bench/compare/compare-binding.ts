import { effect, inject, Injectable } from '@angular/core';
import { StageBinding } from '../stage/stage-binding';
import { Comparison } from './comparison';

/** Hands the Stage what its picture is compared with, and how both are shown. */
@Injectable()
export class CompareBinding {
  constructor() {
    const [comparison, stage] = [inject(Comparison), inject(StageBinding)];
    effect(() => stage.engine()?.setCompareView(comparison.view()));
    effect(() => stage.engine()?.setOther(comparison.other()));
  }
}

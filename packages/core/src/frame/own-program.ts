import type { Device } from '../device/device';
import { codeFor, type TargetCode } from '../emit/target';
import type { Module } from '../ir/ir';
import { linkProgram } from '../ir/program';

/** A program of the frame's own, in the text that the device takes. */
export function ownProgram({ target }: Pick<Device, 'target'>, vertex: Module, fragment: Module): TargetCode {
  return codeFor(target, linkProgram(vertex, fragment));
}

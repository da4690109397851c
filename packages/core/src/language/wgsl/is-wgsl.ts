import { withoutComments } from '../without-comments';

const FUNCTION = /(?:^|[\s;}])fn\s+[A-Za-z_]\w*\s*\(/;

/** Whether a text is WGSL: only there functions begin with `fn`. */
export function isWgsl(text: string): boolean {
  return FUNCTION.test(withoutComments(text));
}

import { assetAddress, documentId, LONGEST_NAME, name } from '../documents/names';
import { ORBIT_CAMERA } from '../documents/set';
import { count, described, list, moment, number, object, oneOf, optional, text, whole, withDefault, type TypeOf } from '../schema/schema';

/** The longer side of a picture, pixels. */
export const LARGEST_RENDER = 8192;
/** Jobs of one list. */
export const MOST_JOBS = 200;

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

// What is asked

export const JOB_ADDRESS = object({ id: documentId });
export const JOB_QUERY = object({ limit: withDefault(whole(1, MOST_JOBS), 50) });
/** A picture that a worker is to draw. */
export const RENDER_WISH = object({
  document: described(documentId, 'The material, set or light rig.'),
  width: described(whole(1, LARGEST_RENDER), 'Pixels.'),
  height: whole(1, LARGEST_RENDER),
  set: optional(documentId, 'Another set than the one that it was last seen in.'),
  rig: optional(documentId, 'Another light rig.'),
  view: optional(name, 'A saved view of the set; without one, what the Library shows.'),
  camera: optional(ORBIT_CAMERA, 'In place of a saved view.'),
  seconds: optional(number(0), 'Of the Stage’s clock.'),
});

// What is answered

const progress = described(number(0, 1), 'The part that is done.');
export const JOB = object({
  id: documentId,
  kind: oneOf(['render']),
  state: oneOf(JOB_STATES),
  progress,
  message: optional(text(2000), 'Why it failed, or what its result lacks.'),
  asset: optional(assetAddress, 'The result, among the files of the workspace.'),
  title: text(LONGEST_NAME),
  attempts: described(count, 'Workers that have begun it.'),
  createdAt: moment,
  updatedAt: moment,
});
export const JOB_LIST = object({ jobs: list(JOB, 0, MOST_JOBS) });
/** A job has gone on. */
export const JOB_NEWS = object({ job: documentId, state: oneOf(JOB_STATES), progress });

export interface RenderWish extends TypeOf<typeof RENDER_WISH> {}
export interface Job extends TypeOf<typeof JOB> {}
export interface JobNews extends TypeOf<typeof JOB_NEWS> {}

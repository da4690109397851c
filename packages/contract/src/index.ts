/** What travels, described once: documents, and the messages between pages, server and command line. */

// Schemas, and what derives from one.
export { isJsonObject, type Json } from './json';
export { effectAt, fieldsOf } from './schema/effect';
export { toJsonSchema } from './schema/json-schema';
export type { Field, ObjectSchema, ReceivedOf, Schema } from './schema/schema';
export { type Problem, validate } from './schema/validate';

// Documents.
export { type BrelvinDocument, DOCUMENT_KINDS, type DocumentKind, KIND_NAMES } from './documents/kinds';
export { CODE_NAME, LONGEST_NAME } from './documents/names';
export type { InletValue } from './documents/values';
export { type Area, type Graph, GRAPH_NODE, type GraphNode, type Note, type Ribbon } from './documents/graph';
export { type RibbonType } from './documents/ribbon-types';
export type { GroupPort, NodeGroup } from './documents/group';
export { IMAGE_FILTERS, IMAGE_WRAPS, type MaterialImage } from './documents/image';
export { LIVE_KINDS, type LiveInput } from './documents/live-input';
export {
  LONGEST_SOURCE,
  type Material,
  MATERIAL,
  MATERIAL_VERSION,
  type MaterialCode,
  type MaterialParameter,
  type OpacityMode,
  type Outline,
  OUTLINE_UNITS,
  type ParameterType,
  type Variant,
} from './documents/material';
export { type DistanceField } from './documents/field';
export { type LibraryFunction } from './documents/function';
export { CLIPPING, CLIPPING_VERSION, type Clipping } from './documents/clipping';
export {
  type FloorLook,
  type MadeForMesh,
  type MeshCopies,
  type MeshMotion,
  type MeshPlacing,
  type MeshShape,
  type MeshSource,
  MOST_COPIES,
  type OrbitCamera,
  type PartRule,
  type SavedView,
  SET_VERSION,
  ORBIT_CAMERA,
  type SetFloor,
  type SetMesh,
  type StageSet,
} from './documents/set';
export {
  BACKGROUND_FITS,
  type BackgroundFit,
  type BackgroundImage,
  type Bloom,
  type Falloff,
  type Fog,
  type LightKind,
  type LightMotion,
  type LightMotionKind,
  type LightRig,
  MOST_LIGHTS_IN_RIG,
  type NearOcclusion,
  RIG_VERSION,
  type RigEnvironment,
  type RigLight,
  TONE_CURVES,
  type ToneCurve,
} from './documents/light-rig';

// Files of the workspace.
export {
  CHUNK_BYTES,
  ENVIRONMENT_TYPES,
  FILE_USES,
  IMAGE_TYPES,
  LARGEST_FILE,
  LARGEST_MESH_FILE,
  LARGEST_SIDE,
  MESH_TYPE,
  mostBytesOf,
} from './files';

// Messages: steps.
export { APPEND, type Append, type Change, LARGEST_STEP, type StoredStep, type Transaction } from './messages/steps';

// Messages: documents and functions.
export {
  AFTER_QUERY,
  anyDocument,
  DOCUMENT_ADDRESS,
  DOCUMENT_LIST,
  DOCUMENT_QUERY,
  type DocumentStep,
  type DocumentSummary,
  FILE_FORM_QUERY,
  HISTORY_PART,
  HISTORY_QUERY,
  type HistoryPart,
  KIND_QUERY,
  NAMED,
  type NamedVersion,
  NEW_DOCUMENT,
  NEW_VERSION,
  type NewVersion,
  SAVED,
  STEP_ADDRESS,
  STEP_QUERY,
  STEPS,
  STORED_DOCUMENT,
  type StoredDocument,
  VERSIONS,
} from './messages/documents';
export { FUNCTION_ADDRESS, FUNCTION_USERS, type FunctionUser, FUNCTIONS, type StoredFunction } from './messages/functions';

// Messages: files and shelves.
export {
  ANNOUNCEMENT,
  type Announcement,
  ASSET_ADDRESS,
  ASSET_CHANGE,
  ASSET_LIST,
  ASSET_SUMMARY,
  type AssetChange,
  type AssetSummary,
  CHUNK_ADDRESS,
  MISSING_CHUNKS,
} from './messages/assets';
export { FILE_QUERY, type FileQuery, type ShelfOrder, type ShelfQuery, type TagCount, TAGS } from './messages/shelf';

// Messages: what happens elsewhere, what went wrong, how the server is.
export { type DocumentNews, type News, type Told, type Watch, WATCH } from './messages/news';
export { FAILURE, type Failure } from './messages/failure';
export { ALIVE, type Health, HEALTH } from './messages/health';
export { BUDGET, type Budget } from './messages/budget';
export {
  type Job,
  JOB,
  JOB_ADDRESS,
  JOB_LIST,
  JOB_QUERY,
  JOB_STATES,
  type JobNews,
  type JobState,
  LARGEST_RENDER,
  RENDER_WISH,
  type RenderWish,
} from './messages/jobs';

/**
 * What is used outside of core, by name, in the order of its folders. Whatever is not named here is core’s own.
 */

// Documents: materials, sets, light rigs, functions; every edit of them.
export { assetsOf, seenWith, withOtherIds } from './document/belongings';
export { clip, duplicate, ForeignClipping, parseClipping, paste } from './document/clipping';
export { differenceOf } from './document/difference';
export { InvalidDocument, kindOf, parseDocument, readDocument } from './document/documents';
export { type Edit, joinEdits } from './document/edit';
export { DOCK, EMPTY_GRAPH, ENTRY, type InletAddress, inletKey, inletOf, type OutletAddress } from './document/graph';
export { GraphEdits, graphsOf } from './document/graph-edits';
export { EMPTY_HISTORY, forget, type History, type HistoryEntry, historyOf, mergeHistories, record, redo, undo } from './document/history';
export { imageMemory, type ImageUse, imageUses, linkImage, removeUnusedImages, replaceImage } from './document/image-uses';
export {
  backgroundKind,
  type BackgroundKind,
  FIRST_OCCLUSION,
  isPunctual,
  lightsOf,
  MOST_LIGHTS,
  numberedLights,
  SUN,
} from './document/light-rig';
export { STILL_LIVE_INPUT, throughWhite } from './document/live-input';
export { colourOfStops, MOST_STOPS } from './document/stops';
export { FIRST_OUTLINE, type MaterialSource } from './document/material';
export {
  addParameter,
  applyVariant,
  freeParameterName,
  keepVariant,
  putImage,
  removeVariant,
  rename,
  setImageField,
  setOpacityMode,
  setOutline,
  setOutlineField,
  setParameter,
  setTags,
  silence,
} from './document/material-edits';
export { isShared, ownName, SHARED_SURROUNDINGS } from './document/shared-surroundings';
export { STARTERS, startEdit, startedFrom, type Starter } from './document/starters';
export { newFloorMaterial, newMaterial, newMesh, newRig, newSet } from './document/new-documents';
export { newLight } from './document/new-lights';
export { filesForParts } from './document/part-files';
export { FLOOR, materialsOf, overridesOf, ruleFits, rulesInOrder } from './document/part-rules';
export {
  addLight,
  colourLight,
  environmentAlone,
  FIRST_ENVIRONMENT,
  hasOwnLight,
  removeLight,
  setBackgroundImage,
  setBackgroundKind,
  setEnvironment,
  setLight,
  setRig,
  swapEnvironment,
} from './document/rig-edits';
export { NO_FLOOR } from './document/set';
export { fieldsOf, withFields } from './document/shown-fields';
export { newCodedField, newDistanceField } from './compile/code/new-field';
export { type WrittenField, writtenField } from './compile/code/written-field';
export { fieldAsCode, fieldGraph } from './compile/code/field-as-code';
export {
  dressPart,
  nextOrder,
  ownRule,
  putMesh,
  putRule,
  putView,
  removeMesh,
  removePartValues,
  removeRule,
  setFloor,
  setMesh,
  setPartValue,
} from './document/set-edits';
export { isSoundText, soundChanges, soundText } from './document/sound-text';
export { applyChanges, condense, invertChanges, UnfitChange } from './document/transaction';

// The catalogue of nodes, and the library of shading code.
export { codeKind, FIRST_CODE, LONGEST_CODE } from './catalogue/code-kind';
export { featuredKind } from './catalogue/features';
export {
  functionKindId,
  FunctionLibrary,
  functionOfKind,
  type FunctionText,
  type FunctionTexts,
  libraryWith,
  nameInText,
  NO_FUNCTIONS,
} from './catalogue/function-library';
export { functionsNeededBy, functionsUsedBy, newFunction, renameFunction, takeNameOver } from './catalogue/function-uses';
export { iorOfReflectivity, reflectivityOfIor } from './catalogue/ior';
export {
  type Catalogue,
  CODE_KIND,
  CUBE_IMAGE_KIND,
  type FeatureSpec,
  GROUP_KIND,
  IMAGE_KIND,
  type InletSpec,
  type Meaning,
  type NodeKind,
  type OutletSpec,
  PARAMETER_KIND,
  THIS_LIGHT_KIND,
} from './catalogue/kind';
export { openSides } from './catalogue/inlet-limits';
export { library, type Library, libraryText } from './catalogue/library';
export { likeliness, searchKinds } from './catalogue/search';
export { COLDEST_KELVIN, HOTTEST_KELVIN, temperatureColour } from './catalogue/temperature';

// The language: reading, formatting what is wrong.
export {
  elaborate,
  isWgsl,
  formatDiagnostic,
  originOfLine,
  type CodeMend,
  type Diagnostic,
  type EmittedSource,
  type RelatedPlace,
  type TextEdit,
  withEdits,
} from './language';
export { functionWords } from './language/function-words';
export { evaluateNumber } from './language/number-expression';

// Help while one writes code.
export { type Completion, type Completions, completionsAt, helpAt, renamable, renameAt } from './assist/assist';
export { fieldDiagnostics, functionDiagnostics, type TextRole } from './assist/coded-text';
export { forkOf } from './assist/fork';
export { SNIPPETS } from './assist/snippets';

// Graphs and code to programs.
export { parametersOf, setMaterialCode } from './compile/code/code-edits';
export { withVertexStage } from './compile/code/vertex-stage';
export type { GraphAsCode } from './compile/code/graph-as-code';
export { graphAsCode } from './compile/code/graph-to-code';
export { COUNTED_STEPS, loopsCountedIn, type PlacedLoop } from './compile/code/counted-loops';
export { FIRST_WGSL_CODE, newCodeMaterial } from './compile/code/new-code';
export { inOtherLanguage, type Translatable, type Translated } from './compile/code/other-language';
export { CODE_PATH, codeDiagnostics, codeKey, isWhole, readCode, VERTICES_PATH } from './compile/code/read-code';
export { compileMaterial } from './compile/compile-material';
export { MOST_OUTLETS } from './compile/limits';
export { dockInlets } from './compile/dock';
export { EACH_LIGHT_GROUP } from './compile/each-light-group';
export { connectionProblem, fittingInlet, fittingOutlet } from './compile/fitting';
export { portPath } from './compile/flatten';
export { groupKind, titleOfNode } from './compile/group-kind';
export {
  addPort,
  describeGroup,
  makeGroup,
  mayContain,
  putGroup,
  removePort,
  runForEachLight,
  setPort,
  titleGroup,
  unmakeGroup,
} from './compile/grouping';
export { writeMaterialValues } from './compile/material-values';
export { hasCurve, nodeCurve } from './compile/node-curve';
export { type GraphProblem, type ResolvedGraph, resolveGraph } from './compile/resolve';
export { insertIntoRibbon, isLoose, lostBySwap, promote, removeHealed, swapKind, unusedNodes } from './compile/rewiring';
export { threadCount } from './compile/ribbon-type';
export { isStructural, sameStructure } from './compile/structural';
export type { SurfaceVariant } from './compile/surface-programs';
export type { WornBy } from './compile/compiled-material';
export { TypedGraph } from './compile/typed-graph';

// What programs are made of.
export type { Origin, Range } from './ir/origin';
export type { Rate } from './ir/rate';
export { typeName } from './ir/types';

// Programs in the text of a target.
export { BINDING_GROUPS, bindingsOf, groupLayout, type GroupLayout, type ProgramLayout } from './emit/bindings';
export {
  compileFor,
  compileOutletsFor,
  compileToRead,
  emitMaterial,
  fullScreenCode,
  type EmittedMaterial,
  type EmittedOutlets,
  type EmittedResult,
} from './emit/emitted-material';
export { GLSL_TARGET } from './emit/glsl/target';
export { ENTRY_POINTS } from './emit/wgsl/entry-names';
export { TARGET_NAMES, type TargetCode, type TargetName } from './emit/target';
export { TARGETS } from './emit/targets';
export { WGSL_TARGET } from './emit/wgsl/target';
export { type PackedOutlets, type PackedResult, packOutlets, packResult, unpackOutlets, unpackResult } from './emit/packed-result';

// A graphics device, as a frame sees it.
export {
  type BoundResources,
  type BufferDescriptor,
  CANVAS_FORMAT,
  type Device,
  DeviceLost,
  type DeviceBindGroup,
  type DeviceBuffer,
  type DevicePipeline,
  type DeviceProgram,
  type DeviceTexture,
  type DrawCall,
  type PassDescriptor,
  type PassTimes,
  type PipelineDescriptor,
  type ProgramDescriptor,
  ProgramRefused,
  type RowPlace,
  type Sampling,
  type TextureDescriptor,
  type TextureFormat,
  type VertexBufferLayout,
} from './device/device';
export { groupFault, passFault, PassRefused } from './device/pass-faults';

// What was used last.
export { LruCache } from './cache/lru-cache';

// Pictures, pass by pass.
export { ComparedPictures, type CompareView, sideSize } from './frame/compared-pictures';
export { LEVELS as ENVIRONMENT_LEVELS, roughnessOfLevel } from './frame/environment/environment-levels';
export { EnvironmentPasses, type ReadyEnvironment, WHOLE_ENVIRONMENT } from './frame/environment/environment-passes';
export type { FrameItem } from './frame/frame-item';
export { FrameRenderer } from './frame/frame-renderer';
export type { ImageLack } from './frame/image-bank';
export { type DebugView, type Inspection, takesApart, type Term, TERMS, WHOLE_PICTURE } from './frame/inspection';
export type { Lens, LensMode } from './frame/lens';
export { MaterialPipelines } from './frame/material-pipelines';
export { MaterialPipelinesCache } from './frame/material-pipelines-cache';
export { MeshBuffers } from './frame/mesh-buffers';
export { ATLAS_COLUMNS, type OutletCell, type ProbedPoint } from './frame/outlet-passes';
export type { Picture } from './frame/picture';
export { scaleColours } from './frame/scale-colours';
export { type AssignedMaterial, type PartAddress, StageScene } from './frame/stage-scene';
export { drawLargePicture, LARGEST_AT_ONCE, LARGEST_PICTURE, type PictureTile, type TileReceiver } from './frame/large-picture';
export { drawnPixels, THUMBNAIL, THUMBNAIL_SIZE } from './frame/drawn-pixels';
export {
  type AssetReader,
  openStudio,
  renderDocument,
  type RenderedDocument,
  type RenderLack,
  type SeenDocuments,
  type Studio,
} from './frame/render-document';
export {
  channelsOf,
  drawLayers,
  layerNumbers,
  MOST_LAYER_NUMBERS,
  PICTURE_LAYERS,
  RECORDED,
  type PictureLayer,
} from './frame/picture-layers';
export type { PictureSize } from './frame/picture-part';
export type { StageClocks } from './frame/uniforms';

// Camera and lights.
export { DIRECTIONS, dolly, eyePosition, framePoints, lookFrom, orbit, pan, placeInPicture, sightLine, START_CAMERA } from './scene/camera';
export { approach } from './scene/damping';
export { DIAL_HORIZON, dialFromDirection, type DialPoint, directionFromDial } from './scene/light-dial';
export { lightsMove, type LitProgram, litProgram, standingLight, type StandingLight } from './scene/lights';
export { ballRound } from './scene/shadow-views';

// Meshes.
export { buildMesh, GENERATED_SHAPES, MESH_SHAPES, OFFERED_SHAPES, type MeshRecipe, partNames } from './mesh/build-mesh';
export { fieldText } from './mesh/field-source';
export { meshNumber, type MeshNumber } from './mesh/mesh-number';
export { type Bounds, type MeshData, NO_MESH } from './mesh/mesh';
export { wornOnFields } from './mesh/worn-on-fields';
export { type MeshWork, workOut } from './mesh/mesh-work';
export { hitPart } from './mesh/ray';

// Images and environments.
export { halfValue } from './image/half';
export { hexFromLinear, hsvFromSrgb, linearFromHex, linearFromSrgb, srgbFromHsv, srgbFromLinear } from './image/colour-space';
export { faceDirection, faceSolidAngle, panoramaDirection, panoramaSolidAngle } from './image/environment/directions';
export { type EnvironmentPixels, facesPixels, LARGEST_PANORAMA, panoramaPixels } from './image/environment/environment-pixels';
export { generatedEnvironment } from './image/environment/generated/generated-environment';
export { panoramaHarmonics, toldHarmonics } from './image/environment/harmonics';
export { facesByName } from './image/environment/six-names';
export { type FloatPicture, PictureRefused, RowReducer } from './image/float-picture';
export { cubeChain, type CubeChain, leavesMipsToDevice, mipChain, type MipChain, type Pixels } from './image/mips';
export { pictureDifference, type PictureDifference } from './image/picture-difference';

// Sets of maps.
export { normalReaders, readGreenAs } from './maps/green-of-normals';
export { imageFacts, type ImageFacts } from './maps/image-facts';
export { roleByName, roleOf } from './maps/image-role';
export { NO_SEAMS, wrapsOf } from './maps/image-seams';
export { readMapName } from './maps/map-names';
export { looksLikeMapSet, mapSetWords, type MapSurface, meaningsOf, type ProposedMap, proposeMapSet } from './maps/map-set';
export { type PackingId, packingOf, PACKINGS } from './maps/packings';
export { type HeightUse, type WiredMap, wireMapSet } from './maps/wire-map-set';

// Files.
export {
  BadBrelvinFile,
  type BrelvinFile,
  type FileContent,
  LARGEST_BRELVIN_FILE,
  readBrelvinFile,
  writeBrelvinFile,
} from './formats/brelvin-file';
export { exrHead, isExr } from './formats/exr-head';
export { splitGainMap, withGains } from './formats/gain-map';
export { unpackArchive, type Unpacked } from './formats/image-archive';
export { meshFileHead, MeshFileRefused, readMeshFile, writeMeshFile } from './formats/mesh-file';
export { isRadiance, radianceHead, readRadiance, writeRadiance } from './formats/radiance';

// Meshes and materials of files that other programs wrote.
export { type AssembledMesh, assembleMesh, meshFacts } from './import/assemble-mesh';
export { fieldScene, NET_CELLS } from './import/field-scene';
export {
  type ImportedImage,
  type ImportedMap,
  type ImportedMaterial,
  type ImportedPiece,
  type ImportedScene,
  ImportRefused,
  PLAIN_IMPORT,
} from './import/imported-scene';
export { materialFromImport, type TakenImage } from './import/material-from-import';
export { ambiguousFile, findNamedFile } from './import/named-files';
export { readMtl } from './import/obj/read-mtl';
export { readObj } from './import/obj/read-obj';

// Checks of well-known mistakes.
export { type CheckInput, type Finding, type Mend, type SeenThrough, silenceKey } from './checks/check';
export { checkBudget } from './checks/over-budget';
export { type Checked, type CheckFault, runChecks } from './checks/run-checks';

// What a material costs.
export { addCosts, type Cost, weightOfCost } from './cost/cost';
export { type CostPlace, type CostWish, materialCost, type MaterialCost, type PartCost } from './cost/material-cost';
export { type Movable } from './cost/movable';

// The documents of a fresh start.
export { DEMO_DOCUMENTS } from './demo/demo-documents';
export { DEMO_ENVIRONMENTS, demoPanorama } from './demo/demo-environments';
export { DEMO_IMAGES } from './demo/demo-images';
export { demoDocument, demoScenes, demoSet, type DemoScene } from './demo/demo-scenes';
export { demoFunctions, demoLibrary } from './demo/demo-library';

// Random programs.
export { broken } from './fuzz/broken';
export { Computing } from './fuzz/computing';
export { evaluatePacked, packFunctions, type PackedFunctions } from './fuzz/packed';
export { Random } from './fuzz/random';
export { WellTyped, type RandomFunction } from './fuzz/well-typed';
export { evaluateCall } from './ir/evaluate';

// Limits.

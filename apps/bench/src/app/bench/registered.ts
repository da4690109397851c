import type { Provider, Type } from '@angular/core';
import { ABOUT_TAB } from './about/about-panel';
import { CHECKS_TAB } from './checks/checks-panel';
import { CodeAnswers } from './stage/code-answers';
import { CODE_KEYS, codeCommands } from './code/code-commands';
import { CODE_WORKSPACE } from './code/code-workspace';
import { COMMAND_SOURCES, PLACE_KEYS } from './commands/bench-commands';
import type { CommandSource, PlaceKey } from './commands/command';
import { helpCommands } from './commands/help-commands';
import { CompareBinding } from './compare/compare-binding';
import { BesideOpener } from './documents/beside-opener';
import { BenchFiles } from './files/bench-files';
import { fileCommands } from './files/file-commands';
import { finderCommands, GRAPH_KEYS, graphCommands } from './graph/graph-commands';
import { GRAPH_WORKSPACE } from './graph/graph-workspace';
import { historyCommands } from './history/history-commands';
import { COST_TAB, ENVIRONMENT_TAB, HISTORY_TAB, OPACITY_TAB, OUTLINE_TAB, PICTURE_TAB, PROBE_TAB, TERMS_TAB } from './later-tabs';
import { LIGHT_TAB } from './lights/light-panel';
import { LensBinding } from './looking/lens-binding';
import { lookingCommands } from './looking/looking-commands';
import { MapsInSight } from './maps/maps-in-sight';
import { MAPS_WORKSPACE } from './maps/maps-workspace';
import { PANELS, RIG_PANELS, type PanelEntry } from './registry/panel-entry';
import { PARAMETERS_TAB } from './parameters/parameters-panel';
import { areaCommands } from './page/area-commands';
import { PARTS_WORKSPACE } from './parts/parts-workspace';
import { STAGE_KEYS, stageCommands } from './stage/stage-commands';
import { workspaceCommands } from './registry/workspace-commands';
import { WORKSPACES, type WorkspaceEntry } from './registry/workspace-entry';

/** All that the Bench is put together from. A new tab, command or key is one line here. */
const WORKSPACE_ENTRIES: readonly WorkspaceEntry[] = [GRAPH_WORKSPACE, CODE_WORKSPACE, MAPS_WORKSPACE, PARTS_WORKSPACE];
const MATERIAL_TABS: readonly PanelEntry[] = [
  ABOUT_TAB,
  PARAMETERS_TAB,
  OUTLINE_TAB,
  OPACITY_TAB,
  CHECKS_TAB,
  PROBE_TAB,
  COST_TAB,
  HISTORY_TAB,
];
const RIG_TABS: readonly PanelEntry[] = [LIGHT_TAB, ENVIRONMENT_TAB, PICTURE_TAB, TERMS_TAB];
/** In the order of the list of commands. */
const COMMANDS: readonly CommandSource[] = [
  finderCommands,
  historyCommands,
  graphCommands,
  lookingCommands,
  stageCommands,
  workspaceCommands,
  areaCommands,
  codeCommands,
  fileCommands,
  helpCommands,
];
const KEYS: readonly PlaceKey[] = [...GRAPH_KEYS, ...STAGE_KEYS, ...CODE_KEYS];

/** They answer to nobody: as long as the Bench is there, they follow what happens and pass it on. */
export const FOLLOWERS: readonly Type<unknown>[] = [BenchFiles, BesideOpener, CodeAnswers, CompareBinding, LensBinding, MapsInSight];

export const REGISTERED: readonly Provider[] = [
  ...FOLLOWERS,
  { provide: WORKSPACES, useValue: WORKSPACE_ENTRIES },
  { provide: PANELS, useValue: MATERIAL_TABS },
  { provide: RIG_PANELS, useValue: RIG_TABS },
  { provide: COMMAND_SOURCES, useValue: COMMANDS },
  { provide: PLACE_KEYS, useValue: KEYS },
];

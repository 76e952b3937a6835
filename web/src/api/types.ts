import type { components, paths } from './schema'

type S = components['schemas']

export type Project = S['ProjectProject']
export type Channel = S['ProjectChannel']
export type Node = S['ProjectNode']
export type Stage = S['ProjectStage']
export type Send = S['ProjectSend']
export type Clip = S['ProjectClip']
export type Section = S['ProjectSection']
export type EffectInfo = S['EffectInfo']
export type Param = S['ParamParam']
export type Picture = S['EffectPicture']
export type Person = S['StorePerson']
export type Summary = S['StoreSummary']
export type PrintStatus = S['PrintingStatus']
export type PrintSpec = NonNullable<
  paths['/api/projects/{id}/prints']['post']['requestBody']
>['content']['application/json']
export type Message = S['ServerMessage']
export type ChangeMessage = S['ServerChangeMessage']
export type Presence = S['ServerPresence']
export type Logged = S['ServerLogged']
export type StripParams = S['ServerParams']
export type Opened = S['ServerOpened']
export type Revised = S['ServerRevised']
export type Missed = S['ServerMissed']
export type NewProject = S['ServerNewProject']
export type Trial = S['ProjectTrial']
export type Chain = S['ProjectChain']
export type Preset = S['PresetPreset']
export type Comparison = S['PrintingComparison']
export type Alternative = S['PrintingAlternative']
export type Taken = S['ServerTaken']
export type Cost = S['EngineCost']

/** A change as it travels: its name and its fields; Go checks both. */
export type Change = { type: string; do: Record<string, unknown> }

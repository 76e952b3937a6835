import type { components, paths } from './schema'

type S = components['schemas']

export type Project = S['ProjectProject']
export type Channel = S['ProjectChannel']
export type Node = S['ProjectNode']
export type Stage = S['ProjectStage']
export type Fork = S['ProjectFork']
export type Path = S['ProjectPath']
export type ForkFigures = S['FiguresFork']
export type Send = S['ProjectSend']
export type Clip = S['ProjectClip']
export type Arrival = S['EngineArrival']
export type Run = S['ProjectRun']
export type Take = S['ProjectTake']
export type InputKind = S['InputKind']
export type Worked = S['WorkingStatus']
export type Thing = S['ShelfThing']
export type Imported = S['ServerImported']
export type Step = S['PrintingStep']
export type ThenAndNow = S['PrintingThenAndNow']
export type Treatment = S['ProjectTreatment']
export type Section = S['ProjectSection']
export type EffectInfo = S['EffectInfo']
export type Param = S['ParamParam']
export type Picture = S['EffectPicture']
export type Person = S['StorePerson']
export type Who = S['ServerWho']
export type Role = S['ServerOpened']['role']
export type Crew = S['ServerCrew']
export type Member = S['StoreMember']
export type Listing = S['ServerListing']
export type Act = S['StoreAct']
export type SignInOf = S['StoreSession']
export type LinkSays = S['ServerLinkSays']
export type Remark = S['ProjectRemark']
export type RemarkView = S['ViewRemarkView']
export type Speaker = S['ProjectSpeaker']
export type Version = S['StoreVersion']
export type RowDifference = S['ProjectRowDifference']
export type Hand = S['ProjectHand']
export type Summary = S['StoreSummary']
export type Listed = S['ServerListed']
export type Template = S['TemplateTemplate']
export type ProjectChart = S['ProjectChart']
export type PrintStatus = S['PrintingStatus']
export type PrintPoint = S['PrintingPoint']
export type PlaceSpec = NonNullable<
  paths['/api/projects/{id}/clips/print']['post']['requestBody']
>['content']['application/json']
export type StemPlan = S['PrintingStemPlan']
export type PrintSpec = NonNullable<
  paths['/api/projects/{id}/prints']['post']['requestBody']
>['content']['application/json']
export type NewPreset = NonNullable<
  paths['/api/presets']['post']['requestBody']
>['content']['application/json']
export type Point = S['ProjectPoint']
export type PresetFile = NonNullable<
  paths['/api/preset-files']['post']['requestBody']
>['content']['application/json']
export type Message = S['ServerMessage']
export type ChangeMessage = S['ServerChangeMessage']
export type Heard = S['ServerHeard']
export type Whereabouts = Pick<S['ServerPresence'], 'at' | 'stage' | 'heard'>
export type Presence = S['ServerPresence']
export type TrialHeard = S['ServerTrialHeard']
export type Logged = S['ServerLogged']
export type StripParams = S['ServerParams']
export type Trial = S['ProjectTrial']
export type Chain = S['ProjectChain']
export type Preset = S['PresetPreset']
export type Comparison = S['PrintingComparison']
export type Alternative = S['PrintingAlternative']

export type Outline = S['ViewOutline']
export type TapPoint = S['ViewTapPoint']
export type Timeline = S['ViewTimeline']
export type Cost = S['EngineCost']
export type Tap = S['ProjectTap']
export type Sounding = S['SoundingSounding']
export type Reach = S['RoutingReach']
export type Mover = S['ProjectMover']
export type Handle = S['ProjectHandle']
export type Line = S['ProjectLine']
export type LineView = S['ViewLineView']
export type SeenPoint = S['ViewSeenPoint']
export type Movable = S['ViewMovable']
export type LineValue = S['EngineLineValue']
export type Passage = S['ProjectPassage']
export type PassageView = S['ViewPassageView']
export type PassageSpan = S['ViewPassageSpan']
export type PassageKind = S['PassageKind']
export type CourseView = S['ViewCourseView']
export type CourseTargetView = S['ViewCourseTargetView']
export type Contour = S['FiguresContour']
export type Trace = S['RoutingTrace']
export type Lateness = S['EngineLateness']

/** What is asked of the engine, and what it answers: the table of questions in Go, by name. */
export type Questions = {
  [K in keyof paths as K extends `/engine/ask/${infer N}` ? N : never]: paths[K] extends { post: infer P }
    ? {
        of: Json<P, 'requestBody'>
        answer: P extends { responses: { 200: infer R } } ? Json<{ r: R }, 'r'> : never
      }
    : never
}
type Json<P, K extends string> = P extends { [k in K]?: infer B }
  ? NonNullable<B> extends { content: { 'application/json': infer J } }
    ? J
    : never
  : never

export type Trip = S['EngineTrip']

/** A change as it travels: its name and its fields, one of those in Go's registry. */
export type Change = S['ProjectWire']
/** The fields of a change, by its name. */
export type Fields<T extends Change['type']> = Extract<Change, { type: T }>['do']
export type ClipLevels = S['PrintingClipLevels']
export type NormaliseSpec = NonNullable<
  paths['/api/projects/{id}/clips/normalise']['post']['requestBody']
>['content']['application/json']

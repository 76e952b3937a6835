import { RowsCard } from '../board/RowsCard'
import { RepeatsCard } from '../clips/RepeatsCard'
import { SlicesCard } from '../clips/SlicesCard'
import { CommandList } from '../commands/CommandList'
import { CrewCard } from '../crew/CrewCard'
import { EffectList } from '../effects/EffectList'
import { KeysCard } from '../keys/KeysCard'
import { LineageCard } from '../lineage/LineageCard'
import { LinesCard } from '../lines/LinesCard'
import { ThinCard } from '../lines/ThinCard'
import { ValueCard } from '../lines/ValueCard'
import { Logbook } from '../logbook/Logbook'
import { MovesCard } from '../moves/MovesCard'
import { CourseCard } from '../passages/CourseCard'
import { PassageCard } from '../passages/PassageCard'
import { PresetList } from '../presets/PresetList'
import { PointDialog } from '../prints/PointDialog'
import { PrintDialog } from '../prints/PrintDialog'
import { StemsDialog } from '../prints/StemsDialog'
import { RemarksCard } from '../remarks/RemarksCard'
import { SendCard } from '../routing/SendCard'
import { TraceCard } from '../routing/TraceCard'
import { AlongCard } from '../sections/AlongCard'
import type { Dialog } from '../session/view'
import { ShelfCard } from '../shelf/ShelfCard'
import { SoundingList } from '../soundings/SoundingList'
import { TakesCard } from '../takes/TakesCard'
import { WayInCard } from '../takes/WayInCard'
import { CostCard } from '../topbar/CostCard'
import { TempoCard } from '../topbar/TempoCard'
import { CompareCard } from '../trials/CompareCard'

import { VersionsCard } from '../versions/VersionsCard'

/** What was asked for stands on the right of the bench, in place of what is selected. */
export function Beside({ dialog }: { dialog: NonNullable<Dialog> }) {
  switch (dialog.kind) {
    case 'effects':
      return <EffectList {...dialog} />
    case 'print':
      return dialog.point ? (
        <PointDialog channel={dialog.channel} point={dialog.point} />
      ) : (
        <PrintDialog channel={dialog.channel} target={dialog.target} />
      )
    case 'stems':
      return <StemsDialog />
    case 'commands':
      return <CommandList />
    case 'keys':
      return <KeysCard />
    case 'logbook':
      return <Logbook />
    case 'crew':
      return <CrewCard />
    case 'versions':
      return <VersionsCard />
    case 'remarks':
      return <RemarksCard key={`${dialog.about?.at} ${dialog.row}`} {...dialog} />
    case 'presets':
      return <PresetList key={dialog.target} of={dialog.of} target={dialog.target} />
    case 'compare':
      return <CompareCard channel={dialog.channel} />
    case 'costs':
      return <CostCard />
    case 'tempo':
      return <TempoCard />
    case 'along':
      return <AlongCard run={dialog.run} />
    case 'send':
      return <SendCard rows={dialog.rows} />
    case 'trace':
      return <TraceCard from={dialog.from} to={dialog.to} />
    case 'passage':
      return <PassageCard {...dialog} />
    case 'course':
      return <CourseCard id={dialog.id} />
    case 'moves':
      return <MovesCard {...dialog} />
    case 'lines':
      return <LinesCard row={dialog.row} />
    case 'value':
      return <ValueCard {...dialog} />
    case 'thin':
      return <ThinCard v={dialog.v} stretch={dialog.stretch} />
    case 'rows':
      return <RowsCard />
    case 'lineage':
      return <LineageCard key={dialog.clip} clip={dialog.clip} />
    case 'shelf':
      return <ShelfCard key={dialog.clips?.join()} clips={dialog.clips} />
    case 'takes':
      return <TakesCard key={`${dialog.row} ${dialog.from}`} {...dialog} />
    case 'wayIn':
      return <WayInCard row={dialog.row} />
    case 'slices':
      return <SlicesCard key={dialog.clips.join()} ids={dialog.clips} />
    case 'repeats':
      return <RepeatsCard key={dialog.clip} id={dialog.clip} />
    case 'soundings':
      return <SoundingList row={dialog.row} />
  }
}

/** What needs more room than the bench has while nothing but it is open: how much, in pixels. */
export const roomFor: Partial<Record<NonNullable<Dialog>['kind'], number>> = {
  commands: 360,
  compare: 330,
  crew: 330,
  effects: 360,
  keys: 420,
  lineage: 330,
  logbook: 330,
  moves: 330,
  passage: 330,
  presets: 360,
  print: 330,
  remarks: 360,
  rows: 300,
  shelf: 360,
  soundings: 330,
  stems: 350,
  takes: 330,
  versions: 360,
}

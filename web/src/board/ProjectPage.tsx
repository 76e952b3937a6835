import { useEffect } from 'react'
import { useParams } from 'react-router'
import { Bench } from '../bench/Bench'
import { EffectList } from '../effects/EffectList'
import { KeysCard } from '../keys/KeysCard'
import { useKeys } from '../keys/useKeys'
import { LinesCard } from '../lines/LinesCard'
import { ThinCard } from '../lines/ThinCard'
import { ValueCard } from '../lines/ValueCard'
import { Logbook } from '../logbook/Logbook'
import { MovesCard } from '../moves/MovesCard'
import { PassageCard } from '../passages/PassageCard'
import { PresetList } from '../presets/PresetList'
import { PrintDialog } from '../prints/PrintDialog'
import { SendCard } from '../routing/SendCard'
import { TraceCard } from '../routing/TraceCard'
import { AlongCard } from '../sections/AlongCard'
import { close, open } from '../session/live'
import { refused, useSession } from '../session/store'
import { beginAnew, useView } from '../session/view'
import { SoundingList } from '../soundings/SoundingList'
import { NameGate } from '../start/NameGate'
import { Notices } from '../status/Notices'
import { StatusLine } from '../status/StatusLine'
import { CostCard } from '../topbar/CostCard'
import { TempoCard } from '../topbar/TempoCard'
import { TopBar } from '../topbar/TopBar'
import { CompareCard } from '../trials/CompareCard'
import { Board } from './Board'

export function ProjectPage() {
  const { id = '' } = useParams()
  const project = useSession((s) => s.project)
  const bench = useView((v) => v.bench)
  const dialog = useView((v) => v.dialog)
  useEffect(() => {
    open(id).catch(refused)
    beginAnew()
    return close
  }, [id])
  useEffect(() => {
    if (project) document.title = `${project.name} · Shoal`
  }, [project])
  useKeys()
  if (!project) {
    return (
      <main className="grid h-full place-items-center">
        <Notices />
        <p className="soft">Opening the project…</p>
      </main>
    )
  }
  return (
    <div className="flex h-full flex-col">
      <TopBar />
      <Board />
      {bench && <Bench />}
      {dialog?.kind === 'effects' && <EffectList {...dialog} />}
      {dialog?.kind === 'print' && <PrintDialog channel={dialog.channel} target={dialog.target} />}
      {dialog?.kind === 'keys' && <KeysCard />}
      {dialog?.kind === 'logbook' && <Logbook />}
      {dialog?.kind === 'presets' && <PresetList key={dialog.target} of={dialog.of} target={dialog.target} />}
      {dialog?.kind === 'compare' && <CompareCard channel={dialog.channel} />}
      {dialog?.kind === 'costs' && <CostCard />}
      {dialog?.kind === 'tempo' && <TempoCard />}
      {dialog?.kind === 'along' && <AlongCard run={dialog.run} />}
      {dialog?.kind === 'send' && <SendCard rows={dialog.rows} />}
      {dialog?.kind === 'trace' && <TraceCard from={dialog.from} to={dialog.to} />}
      {dialog?.kind === 'passage' && <PassageCard {...dialog} />}
      {dialog?.kind === 'moves' && <MovesCard {...dialog} />}
      {dialog?.kind === 'lines' && <LinesCard row={dialog.row} />}
      {dialog?.kind === 'value' && <ValueCard v={dialog.v} stretch={dialog.stretch} points={dialog.points} />}
      {dialog?.kind === 'thin' && <ThinCard v={dialog.v} stretch={dialog.stretch} />}
      {dialog?.kind === 'soundings' && <SoundingList row={dialog.row} />}
      <StatusLine />
      <NameGate />
    </div>
  )
}

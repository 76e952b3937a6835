import { ScaleMenu } from '../controls/ScaleMenu'
import { useEffect } from 'react'
import { Link, useParams } from 'react-router'
import { Bench } from '../bench/Bench'
import { Threshold } from '../crew/Threshold'
import { FirstMinute } from '../firstminute/FirstMinute'
import { useKeys } from '../keys/useKeys'
import { close, open } from '../session/live'
import { refused, useSession } from '../session/store'
import { beginAnew, useView } from '../session/view'
import { broughtFor } from '../start/brought'
import { NameGate } from '../start/NameGate'
import { Notices } from '../status/Notices'
import { StatusLine } from '../status/StatusLine'
import { recover } from '../takes/recover'
import { TopBar } from '../topbar/TopBar'
import { Board } from './Board'
import { importFiles } from './import'
import { RangeMenu } from '../clips/RangeMenu'
import { PlaceMenu } from './PlaceMenu'

export function ProjectPage() {
  const { id = '' } = useParams()
  const name = useSession((s) => s.project?.name)
  const bench = useView((v) => v.bench)
  const dialog = useView((v) => v.dialog !== null)
  useEffect(() => {
    open(id).then(() => {
      void recover()
      const files = broughtFor(id)
      if (files.length) void importFiles(id, files)
    }, refused)
    beginAnew()
    return close
  }, [id])
  useEffect(() => {
    if (name !== undefined) document.title = `${name} · Shoal`
  }, [name])
  useKeys()
  const gone = useSession((s) => s.gone)
  if (gone) {
    return (
      <Threshold title="You are no longer in this project">
        <p>{gone[0]!.toUpperCase() + gone.slice(1)}.</p>
        <Link className="btn btn-outline self-start" to="/">
          All projects
        </Link>
      </Threshold>
    )
  }
  if (name === undefined) {
    return (
      <main className="grid h-full place-items-center">
        <Notices />
        <p className="soft">Opening the project…</p>
      </main>
    )
  }
  return (
    <div className="page flex h-full flex-col">
      <TopBar />
      <Board />
      <FirstMinute />
      {(bench || dialog) && <Bench />}
      <StatusLine />
      <PlaceMenu />
      <ScaleMenu />
      <RangeMenu />
      <NameGate />
    </div>
  )
}

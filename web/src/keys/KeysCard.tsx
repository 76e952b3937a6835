import { Card } from '../controls/Card'
import { inFull, keys } from './keys'

export function KeysCard() {
  return (
    <Card title="Keys" width={1080}>
      <div className="columns-3 gap-6" tabIndex={0}>
        {keys.map((g) => (
          <section key={g.group} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 font-bold">{g.group}</h3>
            <dl className="grid grid-cols-[104px_1fr] gap-x-3 gap-y-1">
              {g.list.map((k) => (
                <div key={k.key + inFull(k)} className="contents">
                  <dt>
                    <kbd className="kbd kbd-sm whitespace-nowrap">{k.key}</kbd>
                  </dt>
                  <dd className="text-label">{inFull(k)}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Card>
  )
}

import { Card } from '../controls/Card'
import { keys } from './keys'

export function KeysCard() {
  return (
    <Card title="Keys" width={860}>
      <div className="columns-2 gap-8">
        {keys.map((g) => (
          <section key={g.group} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 font-bold">{g.group}</h3>
            <dl className="grid grid-cols-[96px_1fr] gap-x-3 gap-y-1">
              {g.list.map(({ key: k, says: what }) => (
                <div key={k + what} className="contents">
                  <dt>
                    <kbd className="kbd kbd-sm whitespace-nowrap">{k}</kbd>
                  </dt>
                  <dd className="text-label">{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Card>
  )
}

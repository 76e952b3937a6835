import type { Fork } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { Pick, Toggle } from '../controls/Pick'
import { useSession } from '../session/store'
import * as forks from './forks'

const LINEAR =
  'No phase is turned at the crossovers, but the fork is later by a tenth of a second, which all the rest waits for, and ' +
  'what is struck sounds a little before itself. A moved crossover is heard when the hand rests.'

/** How a fork divides and joins: crossovers, level and mix. */
export function ForkScales({ fork, name }: { fork: Fork; name: string }) {
  const strip = useSession((s) => s.strip)!
  return (
    <div className="grid grid-cols-2 gap-x-4">
      {fork.crossovers.map((hz, i) => {
        const d = (fork.linear ? strip.linear : strip.crossovers)[i]!
        return <ParamControl key={d.name} owner={fork.id} param={d} value={hz} of={name} />
      })}
      <ParamControl owner={fork.id} param={strip.trim} value={fork.trim} of={name} />
      <ParamControl owner={fork.id} param={strip.mix} value={fork.mix} of={name} />
      <Pick
        label="Mix law"
        says="Blend fades from the dry signal to what the paths make; add leaves the dry signal as it is."
        value={fork.mixLaw}
        choices={[
          { value: 'blend', text: 'blend' },
          { value: 'add', text: 'add' },
        ]}
        onPick={(mixLaw) => forks.setForkNode(fork, { mixLaw }, 'Change the mix law of')}
      />
      {fork.kind === 'bands' && (
        <>
          <Pick
            label="Slope"
            says="How steeply one band gives way to the next."
            value={fork.slope}
            choices={[
              { value: 24, text: '24 dB/oct' },
              { value: 48, text: '48 dB/oct' },
            ]}
            onPick={(slope) => forks.setFork(fork, { slope })}
          />
          <Toggle
            label="Linear phase"
            says={LINEAR}
            on={fork.linear}
            onSet={(linear) => forks.setFork(fork, { linear })}
          />
        </>
      )}
    </div>
  )
}

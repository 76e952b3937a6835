import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/* A browser spoken to by WebDriver BiDi (W3C): as Debian ships it, nothing in it is changed. */

type Reply = { id?: number; type: string; result?: unknown; error?: string; message?: string }
type Evaluated = { type: string; result?: { value?: unknown }; exceptionDetails?: { text: string } }

const keysByName: Record<string, string> = { Enter: '\uE007', Escape: '\uE00C' }

export class Firefox {
  private asked = 0
  private waiting = new Map<number, { done: (v: unknown) => void; failed: (e: Error) => void }>()
  private context = ''

  private constructor(
    private readonly child: ChildProcess,
    private readonly socket: WebSocket,
    private readonly profile: string,
  ) {
    socket.onmessage = (e) => {
      const r = JSON.parse(String(e.data)) as Reply
      const w = r.id === undefined ? undefined : this.waiting.get(r.id)
      if (!w) return
      this.waiting.delete(r.id!)
      if (r.type === 'error') w.failed(new Error(`${r.error}: ${r.message}`))
      else w.done(r.result)
    }
  }

  static async launch(program: string, width: number, height: number): Promise<Firefox> {
    const profile = mkdtempSync(join(tmpdir(), 'shoal-firefox-'))
    // it asks nobody anything, and fetches nothing
    writeFileSync(join(profile, 'user.js'), 'user_pref("datareporting.policy.dataSubmissionEnabled", false);\n')
    const size = ['--width', String(width), '--height', String(height)]
    const child = spawn(program, ['--headless', '--no-remote', '--profile', profile, '--remote-debugging-port', '0', ...size])
    const url = await new Promise<string>((resolve, reject) => {
      let said = ''
      child.stderr.on('data', (b: Buffer) => {
        said += b.toString()
        const m = /WebDriver BiDi listening on (ws:\S+)/.exec(said)
        if (m) resolve(m[1]!)
      })
      child.on('exit', (code) => reject(new Error(`${program} ended with ${code}: ${said.slice(-2000)}`)))
      child.on('error', reject)
    })
    const socket = new WebSocket(`${url}/session`)
    await new Promise((resolve, reject) => {
      socket.onopen = resolve
      socket.onerror = () => reject(new Error(`no answer from ${url}`))
    })
    const f = new Firefox(child, socket, profile)
    await f.send('session.new', { capabilities: {} })
    const tree = (await f.send('browsingContext.getTree', {})) as { contexts: { context: string }[] }
    f.context = tree.contexts[0]!.context
    await f.send('browsingContext.setViewport', { context: f.context, viewport: { width, height } })
    return f
  }

  private send(method: string, params: object): Promise<unknown> {
    const id = ++this.asked
    this.socket.send(JSON.stringify({ id, method, params }))
    return new Promise((done, failed) => this.waiting.set(id, { done, failed }))
  }

  open = (url: string) => this.send('browsingContext.navigate', { context: this.context, url, wait: 'complete' })

  /** What an expression is in the page; strings, numbers and booleans come through. */
  async evaluate(expression: string): Promise<unknown> {
    const r = (await this.send('script.evaluate', {
      expression,
      target: { context: this.context },
      awaitPromise: true,
    })) as Evaluated
    if (r.type === 'exception') throw new Error(`${expression}: ${r.exceptionDetails?.text}`)
    return r.result?.value
  }

  /** Presses what a selector finds, in its middle, as a hand would. */
  press = (selector: string) => this.pressOn(`document.querySelector(${JSON.stringify(selector)})`)

  /** Presses that of those which a selector finds that says just this. */
  pressNamed = (selector: string, name: string) =>
    this.pressOn(
      `[...document.querySelectorAll(${JSON.stringify(selector)})].find((b) => b.textContent.trim() === ${JSON.stringify(name)})`,
    )

  private async pressOn(element: string) {
    const at = JSON.parse(
      String(
        await this.evaluate(`(() => {
          const b = ${element}.getBoundingClientRect()
          return JSON.stringify({ x: Math.round(b.x + b.width / 2), y: Math.round(b.y + b.height / 2) })
        })()`),
      ),
    ) as { x: number; y: number }
    const actions = [
      { type: 'pointerMove', ...at },
      { type: 'pointerDown', button: 0 },
      { type: 'pointerUp', button: 0 },
    ]
    await this.send('input.performActions', { context: this.context, actions: [{ type: 'pointer', id: 'mouse', actions }] })
  }

  /** Types a text, or a key by its name. */
  async type(text: string) {
    const keys = keysByName[text] ? [keysByName[text]] : [...text]
    const actions = keys.flatMap((value) => [
      { type: 'keyDown', value },
      { type: 'keyUp', value },
    ])
    await this.send('input.performActions', { context: this.context, actions: [{ type: 'key', id: 'keys', actions }] })
  }

  async close() {
    const gone = new Promise((r) => this.child.on('exit', r))
    this.child.kill()
    await gone
    rmSync(this.profile, { recursive: true, force: true })
  }
}

import type { Param } from '../api/types'

/** A value as a person reads it, without its unit. */
export function figure(
  p: Pick<Param, 'taper' | 'digits' | 'choices' | 'min' | 'max' | 'unit'>,
  v: number,
): string {
  if (p.taper === 'choice')
    return (p.choices?.[v] ?? String(v)).replace(/ dotted$/, 'd').replace(/ triplet$/, 't')
  if (p.taper === 'switch') return v ? 'on' : 'off'
  if (p.taper === 'level' && v <= -120) return '−∞'
  if (p.unit === 'Hz' && v >= 10000) return `${(v / 1000).toFixed(1)} k`
  if (p.unit === 'Hz' && v >= 1000) return `${(v / 1000).toFixed(2)} k`
  if (p.min === -1 && p.max === 1 && p.unit === '') {
    const side = Math.round(Math.abs(v) * 100)
    return side === 0 ? 'centre' : `${v < 0 ? 'L' : 'R'} ${side}`
  }
  const s = Math.abs(v).toFixed(p.digits)
  const zero = Number(s) === 0
  const sign = v < 0 && !zero ? '−' : p.unit === 'dB' && p.min < 0 && !zero ? '+' : ''
  return sign + s
}

type Said = Parameters<typeof figure>[0]

/** A value and the unit that its figure is in: thousands of hertz are kHz. */
export function parted(p: Said, v: number): [number: string, unit: string] {
  const f = figure(p, v)
  return f.endsWith(' k') ? [f.slice(0, -2), `k${p.unit}`] : [f, p.unit]
}

/** A value with its unit. */
export const said = (p: Said, v: number) => parted(p, v).join(' ').trim()

type Readable = Pick<Param, 'unit' | 'min' | 'max' | 'taper' | 'choices'>

/** Reads what a person typed: "2k", "-6", "1.5 s" for a time in ms, "1/8d", "off". It may lie outside the range. */
export function read(p: Readable, text: string): number | null {
  const written = text.trim().toLowerCase()
  if (p.taper === 'choice') return choice(p.choices ?? [], written)
  const t = written.replace('−', '-').replace(',', '.')
  if (p.taper === 'level' && (t === 'off' || t === '-∞' || t === '-inf')) return p.min
  const side = /^([lrc])(?:entre)?\s*(\d*)$/.exec(t)
  if (side && p.min === -1)
    return side[1] === 'c' ? 0 : (Math.min(Number(side[2] || 100), 100) / 100) * (side[1] === 'l' ? -1 : 1)
  const m = /^([+-]?\d*\.?\d+)\s*(k|khz|hz|db|ms|s|%|x|×|:1|: 1)?$/.exec(t)
  if (!m) return null
  let v = Number(m[1])
  if (m[2] === 'k' || m[2] === 'khz') v *= 1000
  if (m[2] === 's' && p.unit === 'ms') v *= 1000
  if (m[2] === 'ms' && p.unit === 's') v /= 1000
  return v
}

/** Finds a choice by its name or its beginning; "1/8d" is dotted and "1/8t" a triplet. */
export function choice(choices: string[], t: string): number | null {
  const full = t.replace(/(\d)\s*d$/, '$1 dotted').replace(/(\d)\s*t$/, '$1 triplet')
  const names = choices.map((c) => c.toLowerCase())
  const exact = names.indexOf(full)
  const i = exact >= 0 ? exact : names.findIndex((n) => n.startsWith(full))
  return full && i >= 0 ? i : null
}

const knee = -60
const part = 0.1

/** The place of a value along a scale, 0 to 1: the drawing of param.Place. */
export function place(p: Pick<Param, 'taper' | 'min' | 'max'>, v: number): number {
  if (p.taper === 'log') return Math.log(v / p.min) / Math.log(p.max / p.min)
  if (p.taper === 'level') {
    if (v < knee) return ((v - p.min) / (knee - p.min)) * part
    return part + ((v - knee) / (p.max - knee)) * (1 - part)
  }
  return (v - p.min) / (p.max - p.min || 1)
}

/** The value at a place along a scale. */
export function at(p: Pick<Param, 'taper' | 'min' | 'max'>, x: number): number {
  const c = Math.min(Math.max(x, 0), 1)
  if (p.taper === 'log') return p.min * Math.exp(c * Math.log(p.max / p.min))
  if (p.taper === 'level') {
    if (c < part) return p.min + (c / part) * (knee - p.min)
    return knee + ((c - part) / (1 - part)) * (p.max - knee)
  }
  return p.min + c * (p.max - p.min)
}

/** Rounds to what the figure shows, so that what is stored is what is read. */
export function round(p: Pick<Param, 'digits' | 'min' | 'max'>, v: number): number {
  const k = 10 ** Math.max(p.digits, 0)
  return Math.min(Math.max(Math.round(v * k) / k, p.min), p.max)
}

/** One press of an arrow key. */
export function step(p: Param, v: number, presses: number): number {
  if (p.taper === 'choice' || p.taper === 'switch')
    return Math.min(Math.max(v + Math.sign(presses), p.min), p.max)
  if (p.taper === 'log')
    return round(p, v * (1 + p.step / 100) ** presses) === v
      ? round({ ...p, digits: p.digits + 2 }, v * (1 + p.step / 100) ** presses)
      : round(p, v * (1 + p.step / 100) ** presses)
  return round({ ...p, digits: Math.max(p.digits, 1) }, v + p.step * presses)
}

import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import type { Project } from '../api/types'
import { hashOf } from './hash'
import { patched } from './patch'

const held = JSON.parse(readFileSync('../internal/project/testdata/canonical.json', 'utf8')) as {
  document: Project
  hash: string
}

test('the hash is the one that Go comes to, whatever order fields are in', async () => {
  expect(await hashOf(held.document)).toBe(held.hash)
  const turned = Object.fromEntries(Object.entries(held.document).reverse()) as Project
  expect(await hashOf(turned)).toBe(held.hash)
})

test('a patch gives another, and the patch back the first', async () => {
  const before = held.document
  const name = before.name
  const next = patched(before, [{ op: 'replace', path: '/lines/0/points/0/value', value: -2 }])
  expect(await hashOf(next)).not.toBe(held.hash)
  const renamed = patched(before, [{ op: 'replace', path: '/name', value: 'Other' }])
  expect(await hashOf(renamed)).not.toBe(held.hash)
  expect(await hashOf(patched(renamed, [{ op: 'replace', path: '/name', value: name }]))).toBe(held.hash)
})

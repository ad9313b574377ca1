import { expect, test } from 'vitest'
import { OneByOne } from './onebyone'

test('each waits for the one before, and goes on where that one failed', async () => {
  const said: string[] = []
  const queue = new OneByOne()
  const slow = queue.run(async () => {
    await new Promise((done) => setTimeout(done, 20))
    said.push('slow')
  })
  const failing = queue.run(async () => {
    said.push('failing')
    throw new Error('no')
  })
  const quick = queue.run(async () => void said.push('quick'))
  await slow
  await expect(failing).rejects.toThrow('no')
  await quick
  expect(said).toEqual(['slow', 'failing', 'quick'])
})

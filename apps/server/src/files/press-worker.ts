import { makeSmall } from './image.ts'

/**
 * The process that reads pictures which strangers made: it may be slow, swell or fall over without holding
 * anybody up.
 */
process.on('message', ({ n, sent }: { n: number; sent: Uint8Array }) => {
  void makeSmall(Buffer.from(sent)).then((reply) => process.send!({ n, reply }))
})
process.on('disconnect', () => process.exit(0))

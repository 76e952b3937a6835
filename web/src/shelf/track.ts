import { selectedChannel } from '../session/selected'

/** The track that a thing would be put down on: the one that is selected, if it is one. */
export const trackForIt = () => {
  const row = selectedChannel()
  return row?.kind === 'track' ? row : null
}

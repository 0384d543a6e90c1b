import { create } from 'zustand'
import { ApiProblem, ask } from './api'

/** Somebody who waits for the password to be typed again: what is to be said, and how it ends. */
export const usePasswordAgain = create<{ asking: { message: string; end: (typed: boolean) => void } | null }>(() => ({
  asking: null
}))

/**
 * Does something that the server may want the password for again: then it is asked for, and the thing is done once more.
 * @throws ApiProblem where it is refused for another reason, or the person did not want to
 */
export async function withPassword<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (!(error instanceof ApiProblem) || !/:password-again$/.test(error.document.type)) throw error
    const typed = await new Promise<boolean>((end) =>
      usePasswordAgain.setState({ asking: { message: error.document.title, end } })
    )
    usePasswordAgain.setState({ asking: null })
    if (!typed) throw error
    return work()
  }
}

/** Takes the password. @returns what is wrong with it, in words; null where it was right */
export async function typeAgain(password: string): Promise<string | null> {
  try {
    await ask('POST /session/again', { body: { password } })
    return null
  } catch (error) {
    if (error instanceof ApiProblem) {
      return error.status === 422 ? 'That is not your password; type it again.' : error.document.title
    }
    return 'The server cannot be reached just now.'
  }
}

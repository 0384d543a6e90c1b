/** The password of a login as a label prints it: behind the name, parted by a stroke, a colon or a blank; where nothing parts it, all of it. */
export function passwordOfLogin(login: string): string {
  const [, parted] = /^\S+?\s*[/:|]\s*(\S.*)$/.exec(login.trim()) ?? []
  const [, behind] = /^\S+\s+(\S.*)$/.exec(login.trim()) ?? []
  return (parted ?? behind ?? login).trim()
}

/** Something the person at the terminal can put right; the message says what. */
export class Complaint extends Error {
  override name = 'Complaint'
}

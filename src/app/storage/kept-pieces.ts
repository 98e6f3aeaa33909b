// Pieces of mattes that are kept on this machine, for other layers and other shots.
import type { Piece, Size } from '../../core/shot'
import { database } from './database'

export interface KeptPiece {
  id: string
  name: string
  piece: Piece
  /** Of the picture that its px are those of. */
  size: Size
  keptAt: number
}

export async function keepPiece(kept: KeptPiece): Promise<void> {
  await (await database()).put('pieces', kept)
}

export async function forgetPiece(id: string): Promise<void> {
  await (await database()).delete('pieces', id)
}

/** The latest first. */
export async function keptPieces(): Promise<KeptPiece[]> {
  const all = await (await database()).getAll('pieces')
  return all.sort((a, b) => b.keptAt - a.keptAt)
}

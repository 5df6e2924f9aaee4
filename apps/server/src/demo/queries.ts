import type { Pool } from 'pg'

/**
 * The demo member that one click signs in as; an address that nobody can sign up with, being no real domain.
 */
export const DEMO_GROWER_EMAIL = 'rowan@tarn-close.invalid'

export async function findDemoGrower(pool: Pool): Promise<string | undefined> {
  const { rows } = await pool.query<{ id: string }>(`select account_id as id from account where email = $1`, [
    DEMO_GROWER_EMAIL,
  ])
  return rows[0]?.id
}

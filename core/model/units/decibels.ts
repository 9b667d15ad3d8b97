/** 0 dBu is the voltage that puts 1 mW into 600 ohm: sqrt(0.6) V. */
const VOLTS_AT_0_DBU = Math.sqrt(0.6);
/** 0 dBV in dBu: 20 log10(1 / 0.7746) = 2.218. */
const DBU_AT_0_DBV = -20 * Math.log10(VOLTS_AT_0_DBU);
/** 1 Pa in dB SPL (re 20 micropascal): 93.98, which the trade writes as 94. */
export const DB_SPL_AT_1_PASCAL = 94;

export const dbFromRatio = (ratio: number): number => 20 * Math.log10(ratio);
export const ratioFromDb = (db: number): number => 10 ** (db / 20);
export const dbFromPower = (power: number): number => 10 * Math.log10(power);
export const powerFromDb = (db: number): number => 10 ** (db / 10);

export const dbuFromVolts = (voltsRms: number): number => dbFromRatio(voltsRms / VOLTS_AT_0_DBU);
export const voltsFromDbu = (dbu: number): number => VOLTS_AT_0_DBU * ratioFromDb(dbu);
export const dbuFromDbv = (dbv: number): number => dbv + DBU_AT_0_DBV;
export const dbvFromDbu = (dbu: number): number => dbu - DBU_AT_0_DBV;

/** The rig's alignment: the analog level at digital full scale (R 68: +18 dBu, RP 155: +24 dBu). */
export interface Reference {
  readonly fullScaleDbu: number;
}

export const dbfsFromDbu = (dbu: number, reference: Reference): number => dbu - reference.fullScaleDbu;
export const dbuFromDbfs = (dbfs: number, reference: Reference): number => dbfs + reference.fullScaleDbu;

/** A microphone's output: sensitivity in dBV/Pa, sound pressure in dB SPL, answer in dBu. */
export const dbuFromSpl = (splDb: number, sensitivityDbvPerPa: number): number =>
  dbuFromDbv(sensitivityDbvPerPa + splDb - DB_SPL_AT_1_PASCAL);

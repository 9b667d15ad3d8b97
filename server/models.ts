import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export interface RigRow extends Model<InferAttributes<RigRow>, InferCreationAttributes<RigRow>> {
  id: string;
  name: string;
  /** The document as JSON text: parsed once, at the edge. */
  document: string;
  revision: number;
  updatedAt: string;
  deletedAt: CreationOptional<string | null>;
}
export interface RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  rigId: string;
  revision: number;
  document: string;
  savedAt: string;
}
export interface TakeRow extends Model<InferAttributes<TakeRow>, InferCreationAttributes<TakeRow>> {
  id: string;
  name: string;
  bytes: number;
  sha256: string;
  addedAt: string;
  notes: string | null;
  revision: number;
}
export interface MeasurementRow
  extends Model<InferAttributes<MeasurementRow>, InferCreationAttributes<MeasurementRow>> {
  rigId: string;
  id: string;
  takeId: string | null;
  kind: string;
  paths: string;
  takenAt: string;
}

export interface DayEventRow extends Model<InferAttributes<DayEventRow>, InferCreationAttributes<DayEventRow>> {
  seq: CreationOptional<number>;
  id: string;
  rigId: string;
  sessionId: string;
  at: string;
  /** The event as JSON text. */
  body: string;
  receivedAt: string;
}

export interface DoorNoteRow extends Model<InferAttributes<DoorNoteRow>, InferCreationAttributes<DoorNoteRow>> {
  id: CreationOptional<number>;
  at: string;
  from: string;
  says: string;
  count: number;
}

export interface DoorPassRow extends Model<InferAttributes<DoorPassRow>, InferCreationAttributes<DoorPassRow>> {
  hash: string;
  until: string;
}

export interface Models {
  readonly rigs: ModelStatic<RigRow>;
  readonly revisions: ModelStatic<RevisionRow>;
  readonly takes: ModelStatic<TakeRow>;
  readonly measurements: ModelStatic<MeasurementRow>;
  readonly dayEvents: ModelStatic<DayEventRow>;
  readonly doorNotes: ModelStatic<DoorNoteRow>;
  readonly doorPasses: ModelStatic<DoorPassRow>;
}

// Fresh objects each time: Sequelize writes the column's name into them.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const textOrNull = () => ({ type: DataTypes.TEXT, allowNull: true });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
const counted = () => ({ type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true });
const key = () => ({ ...text(), primaryKey: true });
const plain = () => ({ timestamps: false });

export function defineModels(sequelize: Sequelize): Models {
  return {
    rigs: sequelize.define<RigRow>(
      'rigs',
      { id: key(), name: text(), document: text(), revision: whole(), updatedAt: text(), deletedAt: textOrNull() },
      plain(),
    ),
    revisions: sequelize.define<RevisionRow>(
      'revisions',
      { rigId: key(), revision: { ...whole(), primaryKey: true }, document: text(), savedAt: text() },
      plain(),
    ),
    takes: sequelize.define<TakeRow>(
      'takes',
      {
        id: key(),
        name: text(),
        bytes: whole(),
        sha256: text(),
        addedAt: text(),
        notes: textOrNull(),
        revision: whole(),
      },
      plain(),
    ),
    measurements: sequelize.define<MeasurementRow>(
      'measurements',
      { rigId: key(), id: key(), takeId: textOrNull(), kind: text(), paths: text(), takenAt: text() },
      plain(),
    ),
    dayEvents: sequelize.define<DayEventRow>(
      'dayEvents',
      {
        seq: counted(),
        id: text(),
        rigId: text(),
        sessionId: text(),
        at: text(),
        body: text(),
        receivedAt: text(),
      },
      plain(),
    ),
    doorPasses: sequelize.define<DoorPassRow>('doorPasses', { hash: key(), until: text() }, plain()),
    doorNotes: sequelize.define<DoorNoteRow>(
      'doorNotes',
      { id: counted(), at: text(), from: text(), says: text(), count: whole() },
      plain(),
    ),
  };
}

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
  /** How it was judged, as JSON text; null until it was. A change of the document makes it null again. */
  summary: CreationOptional<string | null>;
  /** By which program. */
  judgedBy: CreationOptional<string | null>;
}
export interface RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  rigId: string;
  revision: number;
  /** Text, or packed: see `packed.ts`. */
  document: string | Buffer;
  savedAt: string;
  /** What was changed, as a JSON list of sentences. */
  changes: CreationOptional<string>;
  summary: CreationOptional<string | null>;
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
  id: string;
  /** What came in, and from where. */
  device: string;
  address: string;
  pairedAt: string;
  seenAt: string;
}

export interface PhotoRow extends Model<InferAttributes<PhotoRow>, InferCreationAttributes<PhotoRow>> {
  sha256: string;
  bytes: number;
  addedAt: string;
}
/** A photograph that a revision of a rig speaks of. */
export interface PhotoRefRow extends Model<InferAttributes<PhotoRefRow>, InferCreationAttributes<PhotoRefRow>> {
  rigId: string;
  revision: number;
  sha256: string;
}

export interface Models {
  readonly rigs: ModelStatic<RigRow>;
  readonly revisions: ModelStatic<RevisionRow>;
  readonly takes: ModelStatic<TakeRow>;
  readonly measurements: ModelStatic<MeasurementRow>;
  readonly dayEvents: ModelStatic<DayEventRow>;
  readonly doorNotes: ModelStatic<DoorNoteRow>;
  readonly doorPasses: ModelStatic<DoorPassRow>;
  readonly photos: ModelStatic<PhotoRow>;
  readonly photoRefs: ModelStatic<PhotoRefRow>;
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
      {
        id: key(),
        name: text(),
        document: text(),
        revision: whole(),
        updatedAt: text(),
        deletedAt: textOrNull(),
        summary: textOrNull(),
        judgedBy: textOrNull(),
      },
      plain(),
    ),
    revisions: sequelize.define<RevisionRow>(
      'revisions',
      {
        rigId: key(),
        revision: { ...whole(), primaryKey: true },
        document: { type: DataTypes.BLOB, allowNull: false },
        savedAt: text(),
        changes: { ...text(), defaultValue: '[]' },
        summary: textOrNull(),
      },
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
    doorPasses: sequelize.define<DoorPassRow>(
      'doorPasses',
      { hash: key(), until: text(), id: text(), device: text(), address: text(), pairedAt: text(), seenAt: text() },
      plain(),
    ),
    photos: sequelize.define<PhotoRow>('photos', { sha256: key(), bytes: whole(), addedAt: text() }, plain()),
    photoRefs: sequelize.define<PhotoRefRow>(
      'photoRefs',
      { rigId: key(), revision: { ...whole(), primaryKey: true }, sha256: key() },
      plain(),
    ),
    doorNotes: sequelize.define<DoorNoteRow>(
      'doorNotes',
      { id: counted(), at: text(), from: text(), says: text(), count: whole() },
      plain(),
    ),
  };
}

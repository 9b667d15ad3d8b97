import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export interface MeasurementRow
  extends Model<InferAttributes<MeasurementRow>, InferCreationAttributes<MeasurementRow>> {
  rigId: string;
  id: string;
  takeId: string | null;
  kind: string;
  paths: string;
  takenAt: string;
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
  /** What was received, and from where. */
  device: string;
  address: string;
  pairedAt: string;
  seenAt: string;
}

/** Tables that are written a row at a time; what is asked of several at once is SQL of its own, where it is needed. */
export interface Models {
  readonly measurements: ModelStatic<MeasurementRow>;
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

export const defineModels = (sequelize: Sequelize): Models => ({
  measurements: sequelize.define<MeasurementRow>(
    'measurements',
    { rigId: key(), id: key(), takeId: textOrNull(), kind: text(), paths: text(), takenAt: text() },
    plain(),
  ),
  doorPasses: sequelize.define<DoorPassRow>(
    'doorPasses',
    { hash: key(), until: text(), id: text(), device: text(), address: text(), pairedAt: text(), seenAt: text() },
    plain(),
  ),
  doorNotes: sequelize.define<DoorNoteRow>(
    'doorNotes',
    { id: counted(), at: text(), from: text(), says: text(), count: whole() },
    plain(),
  ),
});

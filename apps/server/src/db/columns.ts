import { DataTypes, type Sequelize } from 'sequelize';

// Made anew for each column: the library writes its own notes into these objects.
export const id = () => ({ type: DataTypes.STRING(40), allowNull: false });
/** The team a row belongs to; its column was named before there were teams. */
export const team = () => ({ ...id(), field: 'owner_id' });
export const key = () => ({ ...id(), primaryKey: true });
export const moment = () => ({
  type: DataTypes.DATE(3),
  allowNull: false,
  defaultValue: DataTypes.NOW,
});
/** A moment that may not have come. */
export const when = () => ({ type: DataTypes.DATE(3), allowNull: true, defaultValue: null });
export const sha = () => ({ type: DataTypes.CHAR(64), allowNull: true, defaultValue: null });

/** What every table's model has in common. */
export const settingsOf = (sequelize: Sequelize) =>
  ({ sequelize, timestamps: false, underscored: true }) as const;

// What a board is made of: its schema, the forms of its readouts, their words and its file. For the server and the
// screens of boards; other screens need only the types, and so do not load the forms with their drawings.
// Before any schema is made.
import './schemas/safeText';
export * from './board/board';
export * from './board/boardChanges';
export * from './board/boardFile';
export * from './board/changeForm';
export * from './board/offeredSlots';
export * from './board/readoutWords';
export * from './board/startBoard';
export * from './files/definitionsFile';
export * from './files/namedThings';
export * from './board/upgradeBoard';
export * from './readouts/forms';
export * from './indicators/asIndicator';
// What readouts ask for, what becomes of the answers, and how each form draws and tells it.
export * from './readouts/shown';
export * from './readouts/readoutData';
export * from './readouts/readoutValues';
export * from './readouts/scaledForDisplay';
export * from './readouts/measureNames';
export * from './readouts/valuesData';
export * from './readouts/trendData';
export * from './readouts/trendCaption';
export * from './readouts/stateWords';
export * from './readouts/changeWords';
export * from './readouts/readoutForm';
export * from './readouts/alongAsks';
export * from './readouts/table';
export * from './readouts/onSharedScale';
export * from './readouts/gauge';
export * from './readouts/straight';
export * from './readouts/tank';
export * from './readouts/lamp';
export * from './readouts/figure';
export * from './readouts/moreBands';
export * from './readouts/groupsData';
export * from './readouts/rankingData';
export * from './readouts/ranking';
export * from './board/cellTrend';
export * from './scope/groupScope';
export * from './readouts/gridData';
export * from './readouts/grid';
export * from './readouts/ring';
export * from './readouts/trend';
export * from './readouts/note';
export * from './readouts/picture';

import { createSvgIcon } from '@mui/material/utils';
import {
  mdiBackupRestore,
  mdiClipboardListOutline,
  mdiCogOutline,
  mdiHelpCircleOutline,
  mdiLayersOutline,
  mdiChevronDown,
  mdiClose,
  mdiContentCopy,
  mdiDeleteOutline,
  mdiDotsVertical,
  mdiDownload,
  mdiDragVertical,
  mdiFileUploadOutline,
  mdiLock,
  mdiLockOpenVariantOutline,
  mdiMagnify,
  mdiMenu,
  mdiPause,
  mdiPin,
  mdiPinOutline,
  mdiPlay,
  mdiPlus,
  mdiRecord,
  mdiRedo,
  mdiStop,
  mdiSwapHorizontal,
  mdiUndo,
  mdiWeatherNight,
  mdiWhiteBalanceSunny,
} from '@mdi/js';

const icon = (path: string, name: string) => createSvgIcon(<path d={path} />, name);

export const HistoryIcon = icon(mdiBackupRestore, 'History');
export const SheetIcon = icon(mdiClipboardListOutline, 'Sheet');
export const PreferencesIcon = icon(mdiCogOutline, 'Preferences');
export const HelpIcon = icon(mdiHelpCircleOutline, 'Help');
export const LayersIcon = icon(mdiLayersOutline, 'Layers');
export const AddIcon = icon(mdiPlus, 'Add');
export const CloseIcon = icon(mdiClose, 'Close');
export const CopyIcon = icon(mdiContentCopy, 'Copy');
export const DarkIcon = icon(mdiWeatherNight, 'Dark');
export const DeleteIcon = icon(mdiDeleteOutline, 'Delete');
export const DownloadIcon = icon(mdiDownload, 'Download');
export const FileIcon = icon(mdiFileUploadOutline, 'File');
export const GripIcon = icon(mdiDragVertical, 'Grip');
export const LightIcon = icon(mdiWhiteBalanceSunny, 'Light');
export const LockIcon = icon(mdiLock, 'Lock');
export const LockOpenIcon = icon(mdiLockOpenVariantOutline, 'LockOpen');
export const MenuIcon = icon(mdiMenu, 'Menu');
export const MoreIcon = icon(mdiDotsVertical, 'More');
export const PauseIcon = icon(mdiPause, 'Pause');
export const PinIcon = icon(mdiPinOutline, 'Pin');
export const PinnedIcon = icon(mdiPin, 'Pinned');
export const PlayIcon = icon(mdiPlay, 'Play');
export const RecordIcon = icon(mdiRecord, 'Record');
export const RedoIcon = icon(mdiRedo, 'Redo');
export const SearchIcon = icon(mdiMagnify, 'Search');
export const StopIcon = icon(mdiStop, 'Stop');
export const SwapIcon = icon(mdiSwapHorizontal, 'Swap');
export const UndoIcon = icon(mdiUndo, 'Undo');
export const UnfoldIcon = icon(mdiChevronDown, 'Unfold');

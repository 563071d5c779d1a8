'use client';
import Box from '@mui/material/Box';
import Tooltip from '@mui/material/Tooltip';
import { memo } from 'react';
import { glossary } from './glossary';
import type { Word } from './glossary';

/** A term of the field, explained on hover and on focus. */
export const Term = memo(function Term({ word, children }: { word: Word; children?: string }) {
  return (
    <Tooltip title={glossary[word]}>
      <Box
        component="span"
        tabIndex={0}
        sx={{ textDecoration: 'underline dotted', textUnderlineOffset: '3px', cursor: 'help' }}
      >
        {children ?? word}
      </Box>
    </Tooltip>
  );
});

-- An activity keeps the settings of its own kind; those of other kinds, which were kept beside them, had no effect.
UPDATE activities SET settings = settings - CASE kind
  WHEN 'discussion' THEN ARRAY['opening', 'layout', 'indexBy', 'review', 'wiki', 'lexicon', 'reading']
  WHEN 'journal' THEN ARRAY['threads', 'replies', 'layout', 'review', 'wiki', 'lexicon', 'reading']
  WHEN 'blog' THEN ARRAY['threads', 'replies', 'opening', 'review', 'wiki', 'lexicon', 'reading']
  WHEN 'wiki' THEN ARRAY['threads', 'replies', 'opening', 'layout', 'indexBy', 'review', 'lexicon', 'reading']
  WHEN 'reading' THEN ARRAY['threads', 'replies', 'opening', 'layout', 'indexBy', 'review', 'wiki', 'lexicon']
  WHEN 'review' THEN ARRAY['threads', 'replies', 'opening', 'layout', 'indexBy', 'wiki', 'lexicon', 'reading']
  WHEN 'lexicon' THEN ARRAY['threads', 'replies', 'opening', 'layout', 'review', 'wiki', 'reading']
  WHEN 'exitNote' THEN ARRAY['threads', 'replies', 'opening', 'layout', 'indexBy', 'review', 'wiki', 'lexicon', 'reading']
END;

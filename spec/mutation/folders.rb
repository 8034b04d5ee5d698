# frozen_string_literal: true

# What is looked at together: the names of the code, and the specs that are to see its faults. Slow specs say little
# about a single line, so each folder names those that are quick.
MUTATED_FOLDERS = {
  "timing" => [%w[KindSatchel::Timing*], %w[core/timing core/tempo core/song_time]],
  "curve" => [%w[KindSatchel::Splice* KindSatchel::Thinning* KindSatchel::Segment* KindSatchel::Selection*
                 KindSatchel::Shapes* KindSatchel::Grid* KindSatchel::Backwards* KindSatchel::Chords*],
              %w[core/shapes core/splice core/selection core/scales core/envelope]],
  "perform" => [%w[KindSatchel::Perform*], %w[core/hand_pass core/note_pass core/taking]],
  "conversion" => [%w[KindSatchel::Conversion*], %w[core/role_change core/one_clip core/vary]],
  "heard" => [%w[KindSatchel::Heard*], %w[core/heard core/combining core/lfo core/moved_settings core/ramps]],
  "sources" => [%w[KindSatchel::Lfo* KindSatchel::Follow*], %w[core/lfo core/follow]]
}.freeze

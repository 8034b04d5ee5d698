# frozen_string_literal: true

module KindSatchel
  module Heard
    # What note effects make of the notes of a track, before its instrument: each a pure function of the notes and of
    # song position. Their settings are taken at the tick of each note or step.
    class NoteEffects
      # A note of a track at song ticks, and the region it comes from.
      Sounding = Struct.new(:start, :finish, :pitch, :velocity, :region)

      # @param song [Song]
      # @param track [Track]
      def initialize(song, track)
        @song = song
        @track = track
        @devices = track.note_effects
      end

      def any? = @devices.any?

      # The orders of an arpeggiator, by their place in the choice.
      UP, DOWN, BOTH, STRUCK, RANDOM = *0..4

      # How far before a stretch a note may begin that still sounds in it because of them.
      REACH_TICKS = StepClock::LONGEST_TICKS

      # @param notes [Array<Sounding>] all that sound somewhere in from...to
      # @return [Array<Sounding>] sorted by start; all that sound there
      def played(notes, from, to)
        @devices.reduce(notes) do |now, device|
          device.type == "arpeggiator" ? arpeggiated(device, now, from, to) : quantised(device, now)
        end
      end

      MASK = (1 << 64) - 1

      # splitmix64 (Steele, Lea, Flood 2014): output k, counted from 0, begun at 0; the constants from memory of its
      # published code.
      def self.mixed(count)
        z = ((count + 1) * 0x9E3779B97F4A7C15) & MASK
        z = ((z ^ (z >> 30)) * 0xBF58476D1CE4E5B9) & MASK
        z = ((z ^ (z >> 27)) * 0x94D049BB133111EB) & MASK
        z ^ (z >> 31)
      end

      private

      def quantised(device, notes)
        notes.map do |note|
          next note if setting(device, "bypass", note.start) >= 0.5

          note.dup.tap { |other| other.pitch = in_scale(device, note) }
        end
      end

      # The nearest pitch of the scale; of two as near, the lower one.
      def in_scale(device, note)
        root, towards = chosen(device, "root", note.start), chosen(device, "towards", note.start)
        steps = Devices::SCALE_STEPS.values.fetch(chosen(device, "scale", note.start))
        fits = ->(pitch) { pitch.between?(0, 127) && steps.include?((pitch - root) % 12) }
        ways = { 0 => [-1, 1], 1 => [-1], 2 => [1] }.fetch(towards)
        (0..12).each { |by| ways.each { |way| return note.pitch + (way * by) if fits.call(note.pitch + (way * by)) } }
        note.pitch
      end

      # Where it is passed by, the notes go on as they are.
      def arpeggiated(device, notes, from, to)
        off, on = notes.partition { |note| setting(device, "bypass", note.start) >= 0.5 }
        steps = StepClock.new(@song, address(device, "note")).steps(from - REACH_TICKS, to)
        made = steps.filter_map { |tick, length| step(device, on, tick, length) }
        (off + made.select { |note| note.finish > from }).sort_by { |note| [note.start, note.pitch] }
      end

      def step(device, notes, tick, length)
        held = notes.select { |note| note.start <= tick && note.finish > tick }
        return if held.empty?

        line = line(device, held, tick)
        note, up = line.fetch(place(device, tick, tick / length, line.size))
        gate = setting(device, "gate", tick)
        finish = [tick + [(length * gate).round, 1].max, held.map(&:finish).max].min
        Sounding.new(tick, finish, note.pitch + (12 * up), note.velocity, note.region)
      end

      # The notes in the order in which they come, each with the octaves it is raised by.
      def line(device, held, tick)
        order = chosen(device, "order", tick)
        notes = held.sort_by do |note|
          order == STRUCK ? [note.start, note.pitch] : [note.pitch, note.start]
        end.uniq(&:pitch)
        octaves = (0...setting(device, "octaves", tick).round).to_a
        rising = octaves.product(notes).map(&:reverse).select { |note, up| note.pitch + (12 * up) <= 127 }
        return rising.reverse if order == DOWN

        order == BOTH ? rising + rising[1..-2].to_a.reverse : rising
      end

      # Random is the same wherever playing starts: output k of splitmix64 begun at 0, k the count of steps.
      def place(device, tick, count, size)
        chosen(device, "order", tick) == RANDOM ? NoteEffects.mixed(count) % size : count % size
      end

      def chosen(device, id, tick) = resolver(device, id).then { |one| one.scale.step(one.at(tick)) }
      def setting(device, id, tick) = resolver(device, id).then { |one| one.scale.engine(one.at(tick)) }
      def resolver(device, id) = (@resolvers ||= {})[[device.id, id]] ||= Resolver.new(@song, address(device, id))
      def address(device, id) = Address.new(owner_id: @track.id, device_id: device.id, parameter_id: id)
    end
  end
end

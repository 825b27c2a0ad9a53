;; The innermost loop of all: lowers a row of heights to a level, sixteen cells at a time.
;; Memory: the deepest cut (f32) at 0, heights (f32) from 16, owners (i32) from $owners on.
(module
  (import "field" "memory" (memory 1))

  ;; Where the owner of the first cell lies.
  (global $owners (import "field" "owners") i32)

  ;; Lowers four cells whose heights are $heights; returns the thickness taken of each.
  (func $four (param $at i32) (param $level v128) (param $mark v128) (param $heights v128) (result v128)
    (local $above v128)
    (local $owner i32)
    (local.set $above (f32x4.gt (local.get $heights) (local.get $level)))
    (if (i32.eqz (v128.any_true (local.get $above))) (then (return (v128.const f32x4 0 0 0 0))))
    (v128.store (local.get $at) (f32x4.pmin (local.get $heights) (local.get $level)))
    (local.set $owner (i32.add (i32.sub (local.get $at) (i32.const 16)) (global.get $owners)))
    (v128.store
      (local.get $owner)
      (v128.bitselect (local.get $mark) (v128.load (local.get $owner)) (local.get $above)))
    (v128.and (f32x4.sub (local.get $heights) (local.get $level)) (local.get $above)))

  (func $sum (param $four v128) (result f64)
    (local $two v128)
    (local.set $two
      (f64x2.add
        (f64x2.promote_low_f32x4 (local.get $four))
        (f64x2.promote_low_f32x4
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $four) (local.get $four)))))
    (f64.add (f64x2.extract_lane 0 (local.get $two)) (f64x2.extract_lane 1 (local.get $two))))

  ;; Lowers the cells from $from to $to, both included; returns the thickness taken, summed.
  (func (export "lowerRow") (param $from i32) (param $to i32) (param $level f32) (param $mark i32) (result f64)
    (local $at i32)
    (local $end i32)
    (local $levels v128)
    (local $marks v128)
    (local $most v128)
    (local $taken v128)
    (local $a v128)
    (local $b v128)
    (local $c v128)
    (local $d v128)
    (local $sum f64)
    (local $height f32)
    (local $over f32)
    (local $deepest f32)
    (local.set $at (i32.add (i32.const 16) (i32.shl (local.get $from) (i32.const 2))))
    (local.set $end (i32.add (i32.const 20) (i32.shl (local.get $to) (i32.const 2))))
    (local.set $levels (f32x4.splat (local.get $level)))
    (local.set $marks (i32x4.splat (local.get $mark)))

    ;; Sixteen at a time; most of what a tool passes over has been cut before.
    (block $rest
      (loop $next
        (br_if $rest (i32.gt_u (i32.add (local.get $at) (i32.const 64)) (local.get $end)))
        (local.set $a (v128.load (local.get $at)))
        (local.set $b (v128.load offset=16 (local.get $at)))
        (local.set $c (v128.load offset=32 (local.get $at)))
        (local.set $d (v128.load offset=48 (local.get $at)))
        (if
          (v128.any_true
            (f32x4.gt
              (f32x4.pmax
                (f32x4.pmax (local.get $a) (local.get $b))
                (f32x4.pmax (local.get $c) (local.get $d)))
              (local.get $levels)))
          (then
            (local.set $a (call $four (local.get $at) (local.get $levels) (local.get $marks) (local.get $a)))
            (local.set $b
              (call $four
                (i32.add (local.get $at) (i32.const 16)) (local.get $levels) (local.get $marks) (local.get $b)))
            (local.set $c
              (call $four
                (i32.add (local.get $at) (i32.const 32)) (local.get $levels) (local.get $marks) (local.get $c)))
            (local.set $d
              (call $four
                (i32.add (local.get $at) (i32.const 48)) (local.get $levels) (local.get $marks) (local.get $d)))
            (local.set $most
              (f32x4.pmax
                (local.get $most)
                (f32x4.pmax
                  (f32x4.pmax (local.get $a) (local.get $b))
                  (f32x4.pmax (local.get $c) (local.get $d)))))
            (local.set $taken
              (f32x4.add
                (f32x4.add (local.get $a) (local.get $b))
                (f32x4.add (local.get $c) (local.get $d))))
            (local.set $sum (f64.add (local.get $sum) (call $sum (local.get $taken))))))
        (local.set $at (i32.add (local.get $at) (i32.const 64)))
        (br $next)))

    (local.set $deepest
      (f32.max
        (f32.max (f32x4.extract_lane 0 (local.get $most)) (f32x4.extract_lane 1 (local.get $most)))
        (f32.max (f32x4.extract_lane 2 (local.get $most)) (f32x4.extract_lane 3 (local.get $most)))))

    ;; The rest one by one.
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $end)))
        (local.set $height (f32.load (local.get $at)))
        (if (f32.gt (local.get $height) (local.get $level))
          (then
            (local.set $over (f32.sub (local.get $height) (local.get $level)))
            (local.set $sum (f64.add (local.get $sum) (f64.promote_f32 (local.get $over))))
            (local.set $deepest (f32.max (local.get $deepest) (local.get $over)))
            (f32.store (local.get $at) (local.get $level))
            (i32.store
              (i32.add (i32.sub (local.get $at) (i32.const 16)) (global.get $owners))
              (local.get $mark))))
        (local.set $at (i32.add (local.get $at) (i32.const 4)))
        (br $next)))

    (if (f32.gt (local.get $deepest) (f32.load (i32.const 0)))
      (then (f32.store (i32.const 0) (local.get $deepest))))
    (local.get $sum)))
